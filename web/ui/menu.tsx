"use client";

import { useState } from "react";
import { lazy } from "./lazy";
import type { MenuProps } from "./menu-list";

function MenuButton({ label, className, children, open, onOpen, onNear }: MenuProps & { open: boolean; onOpen: () => void; onNear: () => void }) {
  return (
    <button
      type="button"
      aria-haspopup="menu"
      aria-expanded={open}
      aria-label={label}
      className={className}
      onClick={onOpen}
      onPointerEnter={onNear}
      onFocus={onNear}
      onKeyDown={(event) => {
        if (event.key !== "ArrowDown") return;
        event.preventDefault();
        onOpen();
      }}
    >
      {children}
    </button>
  );
}

const List = lazy<MenuProps>(async () => (await import("./menu-list")).MenuList, {
  Meanwhile: (props) => <MenuButton {...props} open onOpen={() => undefined} onNear={() => undefined} />,
});

/** A button that opens a menu: nothing is done before Enter, a click or a tap. */
export function Menu(props: MenuProps) {
  const [wanted, want] = useState(false);
  return wanted ? <List {...props} /> : <MenuButton {...props} open={false} onOpen={() => want(true)} onNear={List.ahead} />;
}
