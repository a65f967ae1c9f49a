import { useEffect, useRef } from "react";

/** Returns whether a key press goes into a field that takes text. */
export const isTyping = (at: EventTarget | null): boolean => at instanceof HTMLElement && (at.isContentEditable || at.matches("input, textarea, select"));

/** Hears every key that is pressed, wherever the focus is. */
export function useKeydown(hear: (event: KeyboardEvent) => void): void {
  const latest = useRef(hear);
  latest.current = hear;
  useEffect(() => {
    const on = (event: KeyboardEvent) => latest.current(event);
    document.addEventListener("keydown", on);
    return () => document.removeEventListener("keydown", on);
  }, []);
}
