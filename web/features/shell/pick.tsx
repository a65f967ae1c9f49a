"use client";

import { Menu } from "@/ui/menu";

/** Chooses one of a few from a menu: nothing is switched before Enter, a click or a tap. */
export function Pick(props: {
  label: string;
  value: string;
  options: readonly { value: string; name: string }[];
  onValue: (value: string) => void;
  className: string;
  empty?: string;
}) {
  const chosen = props.options.find((choice) => choice.value === props.value);
  return (
    <Menu
      label={`${props.label}: ${chosen?.name ?? props.empty ?? ""}`}
      className={`flex items-center gap-2 ${props.className}`}
      items={props.options.map((choice) => ({ name: choice.name, run: () => props.onValue(choice.value), chosen: choice.value === props.value }))}
    >
      <span className="truncate">{chosen?.name ?? props.empty}</span>
      <span aria-hidden="true">▾</span>
    </Menu>
  );
}
