"use client";

import { Popover } from "radix-ui";
import { type ReactNode, type RefObject, useRef } from "react";

export interface PopoverProps {
  /** What it belongs to: it stands beside it, and the focus goes back there. */
  at: RefObject<HTMLElement | null>;
  onClose: () => void;
  /** The focus stays where it is, as while something is typed. */
  keepsFocus?: boolean;
  className: string;
  align?: "start" | "center" | "end";
  side?: "top" | "bottom";
  sideOffset?: number;
  collisionPadding?: number;
  role?: "presentation";
  "aria-label"?: string;
  children: ReactNode;
}

/** A sheet beside what it belongs to, inside the window wherever that stands. */
export function PopoverContent({ at, onClose, keepsFocus = false, children, ...content }: PopoverProps) {
  const outside = useRef(false);
  return (
    <Popover.Root open onOpenChange={(open) => !open && onClose()}>
      <Popover.Anchor virtualRef={at as RefObject<HTMLElement>} />
      <Popover.Portal>
        <Popover.Content
          collisionPadding={12}
          sideOffset={6}
          {...content}
          onOpenAutoFocus={(event) => keepsFocus && event.preventDefault()}
          onInteractOutside={(event) => {
            // What it belongs to closes it itself.
            if (event.target instanceof Node && at.current?.contains(event.target)) event.preventDefault();
            else outside.current = true;
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            if (!keepsFocus && !outside.current) at.current?.focus();
          }}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
