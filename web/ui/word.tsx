"use client";

import { useRef, useState } from "react";
import { lazy } from "./lazy";
import { PopoverBox } from "./popover";

const WordSaid = lazy<{ word: string }>(async () => (await import("./word-said")).WordSaid);

interface WhatIsProps {
  word: string;
  /** The element that shows the word, for who does not see where this stands. */
  of?: string;
  /** Left out of the order of Tab where a key opens it from the field itself. */
  byKey?: boolean;
  /** Where there is no room for it: then only the key opens it. */
  hidden?: boolean;
  open?: boolean;
  onOpen?: (open: boolean) => void;
}

/** Explains a word of the trade where it stands. */
export function WhatIs({ word, of, byKey = false, hidden = false, open, onOpen }: WhatIsProps) {
  const [own, setOwn] = useState(false);
  const at = useRef<HTMLButtonElement>(null);
  const shown = open ?? own;
  const turn = onOpen ?? setOwn;
  return (
    <>
      <button
        ref={at}
        type="button"
        aria-haspopup="dialog"
        aria-expanded={shown}
        onClick={() => turn(!shown)}
        tabIndex={byKey ? -1 : undefined}
        aria-label="What does this mean?"
        aria-describedby={of}
        aria-hidden={hidden || undefined}
        className={
          hidden
            ? "sr-only"
            : "unprinted -my-[3px] inline-grid size-[24px] flex-none cursor-help place-items-center rounded-full border border-line text-[14px] leading-none font-semibold text-soft hover:border-ink hover:text-ink"
        }
      >
        ?
      </button>
      {shown ? (
        <PopoverBox
          at={at}
          onClose={() => turn(false)}
          aria-label={word}
          className="sheet z-[60] w-[min(340px,92vw)] text-[16px] shadow-[0_6px_30px_rgb(0_0_0/.35)]"
          side="top"
        >
          <h3>{word}</h3>
          <WordSaid word={word} />
        </PopoverBox>
      ) : null}
    </>
  );
}
