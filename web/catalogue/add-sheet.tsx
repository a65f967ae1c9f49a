"use client";

import type { ShelfKind } from "@hearth/core";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { QuickVessel } from "./quick-vessel";
import { ShelfForm } from "./shelf-form";

export interface AddProps {
  kind: ShelfKind;
  /** What was typed while it was looked for. */
  name: string;
  waxes: { id: string; name: string; blend?: unknown }[];
  onMade: (id: string) => void;
  onDone: () => void;
}

/** Puts something on the shelf beside the form that needs it, and gives it back to that form. */
export function AddSheet(props: AddProps) {
  const [isQuick, setQuick] = useState(props.kind === "vessel");
  const article = /^[aeiou]/.test(props.kind) ? "an" : "a";
  return (
    <Dialog.Root open modal={false} onOpenChange={(open) => !open && props.onDone()}>
      <Dialog.Portal>
        <Dialog.Content
          className="fixed inset-y-0 right-0 z-40 w-[min(520px,96vw)] overflow-auto border-l-[3px] border-ink bg-sheet p-5"
          // What stands beside it can be looked at without losing what is typed here.
          onInteractOutside={(event) => event.preventDefault()}
        >
          <Dialog.Title>
            Add {article} {props.kind}
          </Dialog.Title>
          <Dialog.Description className="mb-3 text-[15px] text-soft">It is added to the shelf and chosen in your form.</Dialog.Description>
          {isQuick ? (
            <QuickVessel name={props.name} onMade={props.onMade} onDone={props.onDone} onWhole={() => setQuick(false)} />
          ) : (
            <ShelfForm kind={props.kind} row={null} name={props.name} waxes={props.waxes} onDone={props.onDone} onMade={props.onMade} />
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
