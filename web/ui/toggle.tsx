"use client";

import type { ReactNode } from "react";

/** A button that stays pressed, large enough for a thumb: one of a few, or one that may join others. */
export function Toggle({ on, onPress, children, className = "" }: { on: boolean; onPress: () => void; children: ReactNode; className?: string }) {
  return (
    <button
      type="button"
      aria-pressed={on}
      className={`min-h-[48px] border-2 border-ink bg-sheet px-3 font-semibold aria-pressed:bg-ink aria-pressed:text-sheet ${className}`}
      onClick={onPress}
    >
      {children}
    </button>
  );
}
