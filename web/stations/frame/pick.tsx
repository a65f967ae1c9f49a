"use client";

import { DropdownMenu } from "radix-ui";

/** Chooses one of a few from a menu: nothing is switched before Enter, a click or a tap. */
export function Pick(props: {
  label: string;
  value: string;
  options: readonly { value: string; name: string }[];
  onValue: (value: string) => void;
  className: string;
  empty?: string;
}) {
  const chosen = props.options.find((one) => one.value === props.value);
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={`flex items-center gap-2 ${props.className}`} aria-label={`${props.label}: ${chosen?.name ?? props.empty ?? ""}`}>
        <span className="truncate">{chosen?.name ?? props.empty}</span>
        <span aria-hidden="true">▾</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" collisionPadding={8} className="z-50 max-h-[70vh] min-w-[200px] overflow-auto border-[3px] border-ink bg-sheet">
          <DropdownMenu.RadioGroup value={props.value} onValueChange={props.onValue}>
            {props.options.map((one) => (
              <DropdownMenu.RadioItem
                key={one.value}
                value={one.value}
                className="flex min-h-[44px] cursor-pointer items-center gap-2 px-4 outline-none data-[highlighted]:bg-act data-[highlighted]:text-act-ink"
              >
                <span aria-hidden="true" className="w-4">
                  {one.value === props.value ? "✓" : ""}
                </span>
                {one.name}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
