"use client";

import { useRef, useState } from "react";
import { useKeydown } from "@/ui/keydown";
import { useKeys } from "@/ui/keys";
import { lazy } from "@/ui/lazy";
import type { Section } from "@/ui/section";
import type { FindProps } from "./find-sheet";

/** What is typed before the rest is there is not lost. */
function FindMeanwhile({ text, hint, onText, onClose }: FindProps) {
  return (
    <div className="sheet fixed top-[8vh] left-1/2 z-50 w-[min(620px,94vw)] -translate-x-1/2 !p-0">
      <input
        type="text"
        aria-label="Find"
        autoFocus
        value={text}
        placeholder={hint}
        className="entry w-full !border-0 !border-b-[3px] text-[20px]"
        onChange={(event) => onText(event.target.value)}
        onKeyDown={(event) => event.key === "Escape" && onClose()}
      />
    </div>
  );
}

const Sheet = lazy<FindProps>(async () => (await import("./find-sheet")).FindSheet, { Meanwhile: FindMeanwhile, typed: true });

/** The button that opens the search over everything by its name. */
export function Find({ sections }: { sections: Section[] }) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const button = useRef<HTMLButtonElement>(null);
  useKeys([{ key: "/", does: "find a batch, formula or material by name", run: () => setOpen(true) }]);
  useKeydown((event) => {
    if (event.key.toLowerCase() !== "k" || !(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey) return;
    event.preventDefault();
    setOpen((was) => !was);
  });
  return (
    <>
      <button
        ref={button}
        type="button"
        aria-haspopup="dialog"
        aria-expanded={open}
        className="min-h-[44px] border-2 border-line px-3 text-[14px] lg:min-h-[36px]"
        onClick={() => setOpen(true)}
        onPointerEnter={Sheet.ahead}
        onFocus={Sheet.ahead}
      >
        Find
      </button>
      {open ? (
        <Sheet
          sections={sections}
          text={text}
          hint="Search batches, formulas, materials, or type a command…"
          onText={setText}
          onClose={() => {
            setOpen(false);
            setText("");
            button.current?.focus();
          }}
        />
      ) : null}
    </>
  );
}
