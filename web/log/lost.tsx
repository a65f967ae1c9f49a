"use client";

import { useState } from "react";
import { useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";
import { discard, entries, retry } from "./outbox";
import type { OutboxEntry } from "./store";

/** Entries of this device that a restored backup lacks: they are sent again, or left. */
export function Lost({ lost }: { lost: OutboxEntry[] }) {
  const units = useUnits();
  const [open, setOpen] = useState(false);
  const it = lost.length === 1 ? "it" : "them";
  return (
    <section aria-label="Entries missing after a restore" className={notice({ place: "strip" })}>
      <p role="status">▲ The workshop was restored from a backup without {entries(lost.length)} of this device.</p>
      <div className="mt-1 flex flex-wrap gap-2">
        <button
          type="button"
          className="action-button"
          onClick={() => {
            for (const entry of lost) void retry(entry);
          }}
        >
          Send {it} again
        </button>
        <button type="button" className="press" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Hide" : "Show"} {it}
        </button>
        <button
          type="button"
          className="press"
          onClick={() => {
            for (const entry of lost) void discard(entry);
          }}
        >
          Discard {it}
        </button>
      </div>
      {open ? (
        <ul className="mt-2">
          {lost.map((entry) => (
            <li key={entry.id}>
              <span className="figure">{units.dayClock(entry.event.happenedAt)}</span> {entry.told || entry.event.kind}
              {entry.of ? `, ${entry.what ?? "batch"} ${entry.of}` : ""}
            </li>
          ))}
        </ul>
      ) : null}
    </section>
  );
}
