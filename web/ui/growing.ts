"use client";

import { useEffect, useRef, useState } from "react";

/** How many of so many are shown: a few more with each frame, so that none is held up by much that is new. */
export function useGrowing(all: number, each: number): number {
  const [shown, show] = useState(each);
  const most = Math.min(shown, all);
  useEffect(() => {
    if (most >= all) return;
    const frame = requestAnimationFrame(() => show(most + each));
    return () => cancelAnimationFrame(frame);
  }, [most, all, each]);
  return most;
}

/** A function that stays the same from one drawing to the next, and does what the newest would. */
export function useStable<A extends unknown[]>(act: (...args: A) => void): (...args: A) => void {
  const newest = useRef(act);
  newest.current = act;
  const [stable] = useState(
    () =>
      (...args: A) =>
        newest.current(...args),
  );
  return stable;
}
