"use client";

import { createContext, type ReactNode, useContext, useEffect, useMemo, useRef, useState } from "react";
import { isTyping, useKeydown } from "./keydown";
import type { Key } from "./keys-sheet";
import { lazy } from "./lazy";
import { lettersAreOff } from "./letters";

const KeysContext = createContext<{ add: (keys: Key[]) => () => void } | null>(null);

const KeysSheet = lazy<{ keys: Key[]; onClose: () => void }>(async () => (await import("./keys-sheet")).KeysSheet);

/** Hears single keys while no field is being typed in; `?` lists them all. */
export function Keys({ children }: { children: ReactNode }) {
  const sets = useRef<Key[][]>([]);
  const [open, setOpen] = useState(false);
  const ways = useMemo(
    () => ({
      add: (keys: Key[]) => {
        sets.current.push(keys);
        return () => {
          sets.current = sets.current.filter((item) => item !== keys);
        };
      },
    }),
    [],
  );
  useKeydown((event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented || lettersAreOff() || isTyping(event.target)) return;
    const run = event.key === "?" ? () => setOpen(true) : sets.current.flat().findLast((key) => key.key === event.key)?.run;
    if (!run) return;
    event.preventDefault();
    run();
  });
  return (
    <KeysContext value={ways}>
      {children}
      {open ? <KeysSheet keys={sets.current.flat()} onClose={() => setOpen(false)} /> : null}
    </KeysContext>
  );
}

/** Registers the keys of a view for as long as it is shown. */
export function useKeys(keys: Key[]): void {
  const ways = useContext(KeysContext);
  const latest = useRef(keys);
  latest.current = keys;
  const names = keys.map((key) => `${key.key} ${key.does}`).join("|");
  // The names stand for the keys; their steps are read when pressed
  useEffect(() => ways?.add(latest.current.map((key, index) => ({ ...key, run: () => latest.current[index]?.run() }))), [ways, names]);
}
