"use client";

import { useEffect, useState } from "react";
import { flushSync } from "react-dom";

/** Returns how many of `all` lines are shown: the first `limit`, until the rest is asked for or the page is printed. */
export function useIncrementalList(all: number, limit: number): { shown: number; more: number; showAll: () => void } {
  const [whole, setWhole] = useState(false);
  useEffect(() => {
    const print = () => flushSync(() => setWhole(true));
    window.addEventListener("beforeprint", print);
    return () => window.removeEventListener("beforeprint", print);
  }, []);
  const shown = whole ? all : Math.min(all, limit);
  return { shown, more: all - shown, showAll: () => setWhole(true) };
}
