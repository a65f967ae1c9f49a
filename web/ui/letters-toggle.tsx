"use client";

import { useEffect, useState } from "react";
import { LETTERS, lettersAreOff } from "./letters";

/** Turns the keys of one letter off and on, on this device: they get in the way of those who speak to their computer. */
export function LettersToggle() {
  const [on, setOn] = useState(true);
  useEffect(() => setOn(!lettersAreOff()), []);
  return (
    <label className="flex min-h-[44px] items-center gap-3">
      <input
        type="checkbox"
        className="size-5 accent-action"
        checked={on}
        onChange={(event) => {
          setOn(event.target.checked);
          try {
            localStorage.setItem(LETTERS, event.target.checked ? "on" : "off");
          } catch {
            // A device that keeps nothing keeps its keys.
          }
        }}
      />
      Single-key shortcuts on this device
    </label>
  );
}
