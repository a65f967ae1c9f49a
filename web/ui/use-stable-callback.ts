"use client";

import { useRef, useState } from "react";

/** Returns a callback that is the same function on every render and calls the newest `step`. */
export function useStableCallback<A extends unknown[]>(run: (...args: A) => void): (...args: A) => void {
  const newest = useRef(run);
  newest.current = run;
  const [stable] = useState(
    () =>
      (...args: A) =>
        newest.current(...args),
  );
  return stable;
}
