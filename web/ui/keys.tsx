"use client";

import * as Dialog from "radix-ui";
import { createContext, type ReactNode, useContext, useEffect, useMemo, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";

interface Key {
  key: string;
  does: string;
  act: () => void;
}
const KeysContext = createContext<{ add: (keys: Key[]) => () => void } | null>(null);

const LETTERS = "hearth.letters";
const lettersAreOff = (): boolean => {
  try {
    return localStorage.getItem(LETTERS) === "off";
  } catch {
    return false;
  }
};

/** Turns the keys of one letter off and on, on this device: they get in the way of those who speak to their computer. */
export function LettersToggle() {
  const [on, setOn] = useState(true);
  useEffect(() => setOn(!lettersAreOff()), []);
  return (
    <label className="flex min-h-[44px] items-center gap-3">
      <input
        type="checkbox"
        className="size-5 accent-act"
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
      Keys of a single letter, on this device
    </label>
  );
}

/** Hears single keys while no field is being typed in; `?` lists them all. */
export function Keys({ children }: { children: ReactNode }) {
  const sets = useRef<Key[][]>([]);
  const [open, setOpen] = useState(false);
  const ways = useMemo(
    () => ({
      add: (keys: Key[]) => {
        sets.current.push(keys);
        return () => {
          sets.current = sets.current.filter((one) => one !== keys);
        };
      },
    }),
    [],
  );
  useHotkeys(
    "*",
    (event) => {
      if (lettersAreOff()) return;
      const act = event.key === "?" ? () => setOpen(true) : sets.current.flat().findLast((one) => one.key === event.key)?.act;
      if (!act) return;
      event.preventDefault();
      act();
    },
    { ignoreEventWhen: (event) => event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented },
  );
  return (
    <KeysContext value={ways}>
      {children}
      <Dialog.Dialog.Root open={open} onOpenChange={setOpen}>
        <Dialog.Dialog.Portal>
          <Dialog.Dialog.Overlay className="fixed inset-0 bg-ink/50" />
          <Dialog.Dialog.Content
            className="sheet fixed top-[8vh] left-1/2 max-h-[84vh] w-[min(560px,94vw)] -translate-x-1/2 overflow-auto"
            aria-describedby={undefined}
          >
            <Dialog.Dialog.Title asChild>
              <h2>Keys</h2>
            </Dialog.Dialog.Title>
            <p className="mt-1 text-soft">
              They work while no field is being typed in. Tab and Enter reach everything too. <a href="/words">The words of the trade</a>
            </p>
            <dl className="mt-3 grid grid-cols-[80px_1fr] gap-y-2">
              {[{ key: "?", does: "this list" }, { key: "F1", does: "in a field with a ? beside it: what its word means" }, ...sets.current.flat()].map(
                (one) => (
                  <div key={one.key + one.does} className="contents">
                    <dt>
                      <kbd className="figure inline-block min-w-[34px] border-2 border-ink px-2 text-center text-[18px]">{one.key}</kbd>
                    </dt>
                    <dd>{one.does}</dd>
                  </div>
                ),
              )}
            </dl>
            <LettersToggle />
            <Dialog.Dialog.Close className="press mt-2">Close</Dialog.Dialog.Close>
          </Dialog.Dialog.Content>
        </Dialog.Dialog.Portal>
      </Dialog.Dialog.Root>
    </KeysContext>
  );
}

/** Registers the keys of a view for as long as it is shown. */
export function useKeys(keys: Key[]): void {
  const ways = useContext(KeysContext);
  const latest = useRef(keys);
  latest.current = keys;
  const names = keys.map((one) => `${one.key} ${one.does}`).join("|");
  // The names stand for the keys; their acts are read when pressed
  useEffect(() => ways?.add(latest.current.map((one, index) => ({ ...one, act: () => latest.current[index]?.act() }))), [ways, names]);
}
