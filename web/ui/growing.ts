"use client";

import { Children, type ReactNode, useEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";

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

/** What stands below one another, each brought in with a frame of its own. */
export function InTurn({ children }: { children: ReactNode }): ReactNode {
  const all = Children.toArray(children);
  return all.slice(0, useGrowing(all.length, 1));
}

/** How many of a long list are shown until the rest is asked for; on paper all of it is. */
export function useFirst(all: number, most: number): { shown: number; more: number; showAll: () => void } {
  const [whole, setWhole] = useState(false);
  useEffect(() => {
    const print = () => flushSync(() => setWhole(true));
    window.addEventListener("beforeprint", print);
    return () => window.removeEventListener("beforeprint", print);
  }, []);
  const shown = whole ? all : Math.min(all, most);
  return { shown, more: all - shown, showAll: () => setWhole(true) };
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
