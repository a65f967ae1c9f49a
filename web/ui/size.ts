"use client";

import { useEffect, useRef, useState } from "react";

/** The width of an element in pixels as it is shown, so that a drawing keeps its letters readable. */
export function useWidth<T extends Element>(initial: number) {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(initial);
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => entry && setWidth(Math.max(120, Math.round(entry.contentRect.width))));
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  return { ref, width };
}
