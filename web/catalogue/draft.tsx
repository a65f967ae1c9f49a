"use client";

import { type ReactNode, useEffect, useRef, useState } from "react";
import { useWorkshop } from "@/log/workshop";

type Typed = Record<string, string | undefined>;
interface Kept {
  at: number;
  typed: Typed;
}

/** Drafts older than this are forgotten. */
const MAX_DAYS = 30;
const PAUSE_MS = 400;

const read = (key: string): Kept | null => {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? "null") as Kept | null;
    return kept && Date.now() - kept.at < MAX_DAYS * 86_400_000 ? kept : null;
  } catch {
    return null;
  }
};

/**
 * Keeps what is half typed in a form on this device, and offers it back when the form is opened again. `drop` forgets it,
 * once it was saved. Where the device keeps nothing, nothing is offered.
 */
export function useDraft(
  name: string,
  typed: Typed,
  take: (typed: Record<string, string>) => void,
  words = { title: "Unsaved draft", says: "You left this form without saving. What you typed is kept on this device." },
): { offer: ReactNode; drop: () => void } {
  const { workshopId } = useWorkshop();
  const key = `hearth.draft.${workshopId}.${name}`;
  const [kept, setKept] = useState<Kept | null>(null);
  const text = JSON.stringify(typed);
  const first = useRef(text);
  const dropped = useRef(false);
  /** Keeps what the pause has not kept yet. */
  const unkept = useRef<(() => void) | null>(null);
  // Looked for once, when the form is opened.
  useEffect(() => {
    const found = read(key);
    if (found && JSON.stringify(found.typed) !== first.current) setKept(found);
  }, [key]);
  useEffect(() => {
    unkept.current = null;
    if (text === first.current || dropped.current) return;
    unkept.current = () => {
      unkept.current = null;
      try {
        localStorage.setItem(key, JSON.stringify({ at: Date.now(), typed: JSON.parse(text) }));
      } catch {
        // A device that keeps nothing offers nothing back.
      }
    };
    const timer = setTimeout(() => unkept.current?.(), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [key, text]);
  // Who leaves sooner than that loses nothing either.
  useEffect(() => {
    const leave = () => unkept.current?.();
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, []);
  const drop = () => {
    dropped.current = true;
    unkept.current = null;
    setKept(null);
    try {
      localStorage.removeItem(key);
    } catch {
      // There was none.
    }
  };
  const offer = kept ? (
    <section className="border-l-[6px] border-cool bg-cool-fill px-3 py-2 text-[15px]">
      <h3>{words.title}</h3>
      <p className="mt-1">{words.says}</p>
      <div className="mt-2 flex flex-wrap gap-2">
        <button
          type="button"
          className="press"
          onClick={() => {
            take(Object.fromEntries(Object.entries(kept.typed).flatMap(([text, value]) => (value === undefined ? [] : [[text, value]]))));
            setKept(null);
          }}
        >
          Restore draft
        </button>
        <button
          type="button"
          className="press"
          onClick={() => {
            drop();
            dropped.current = false;
          }}
        >
          Discard draft
        </button>
      </div>
    </section>
  ) : null;
  return { offer, drop };
}
