"use client";

import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

export interface MenuProps {
  label: string;
  className: string;
  /** What the button shows. */
  children: ReactNode;
  /** Where one of them is what holds now, each says whether it is. */
  items: readonly { name: string; run: () => void; chosen?: boolean }[];
  align?: "start" | "end";
}

/** The items of a menu, loaded when it is first opened. */
export function MenuList({ label, className, children, items, align = "start" }: MenuProps) {
  const row = `flex min-h-[44px] cursor-pointer items-center gap-2 px-4 outline-none data-[highlighted]:bg-action data-[highlighted]:text-action-ink`;
  return (
    <DropdownMenu.Root defaultOpen>
      <DropdownMenu.Trigger className={className} aria-label={label}>
        {children}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align={align} collisionPadding={8} className="z-50 max-h-[70vh] min-w-[200px] overflow-auto border-[3px] border-ink bg-sheet">
          {items.some((item) => item.chosen !== undefined) ? (
            <DropdownMenu.RadioGroup value={String(items.findIndex((item) => item.chosen))} onValueChange={(at) => items[Number(at)]?.run()}>
              {items.map((item, index) => (
                <DropdownMenu.RadioItem key={`${index} ${item.name}`} value={String(index)} className={row}>
                  <span aria-hidden="true" className="w-4">
                    {item.chosen ? "✓" : ""}
                  </span>
                  {item.name}
                </DropdownMenu.RadioItem>
              ))}
            </DropdownMenu.RadioGroup>
          ) : (
            items.map((item, index) => (
              <DropdownMenu.Item key={`${index} ${item.name}`} className={row} onSelect={item.run}>
                {item.name}
              </DropdownMenu.Item>
            ))
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
