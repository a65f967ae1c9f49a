"use client";

import type { EventOf } from "@hearth/core";
import { useState } from "react";
import { lazy, usePreload } from "@/ui/lazy";
import { SIGN, TONE } from "@/ui/tone";
import { useUnits } from "@/ui/units";
import type { ShownLog } from "./correction";

const Correction = lazy(async () => (await import("./correction")).Correction, { typed: true });

/** Every entry of a log, newest first or in order; what was corrected stays, struck through. */
export function Entries<E extends EventOf>({ log, newestFirst = false, fixed = false }: { log: ShownLog<E>; newestFirst?: boolean; fixed?: boolean }) {
  const units = useUnits();
  usePreload(Correction);
  const [open, setOpen] = useState<string | null>(null);
  const entries = newestFirst ? [...log.entries].reverse() : log.entries;
  const missing = log.total - log.entries.length;
  return (
    <>
      {missing > 0 ? (
        <p className="py-2 text-soft">
          The newest {log.entries.length} of {log.total} entries. The CSV and JSON files of the record have them all.
        </p>
      ) : null}
      <ol>
        {entries.map(({ event, supersededBy }) => {
          const description = log.tell(event);
          const replaced = supersededBy !== null;
          const fixable = !fixed && !replaced && !["started", "withdrawn"].includes(event.kind) && log.onlyByCommand(event.kind) === null;
          return (
            <li key={event.id} className="border-b border-line py-[6px]">
              <div className="flex items-baseline gap-3">
                <time dateTime={event.happenedAt} className="figure w-[104px] shrink-0 text-[16px] text-soft">
                  {units.clock(event.happenedAt)}
                  <span className="text-[13px]"> {units.monthDay(event.happenedAt)}</span>
                </time>
                <div className={`min-w-0 flex-1 ${replaced ? "text-soft line-through" : ""}`}>
                  {description.what} {description.figure ? <span className="figure text-[19px]">{description.figure}</span> : null}
                  {description.remark ? (
                    <span className={`block text-[15px] font-semibold ${TONE[description.tone]}`}>
                      {SIGN[description.tone]}
                      {description.remark}
                    </span>
                  ) : null}
                </div>
                <span className="text-[14px] text-soft">{log.name(event.personId)}</span>
                {fixable ? (
                  <button
                    type="button"
                    className="unprinted min-h-[32px] px-1 text-[15px] underline"
                    onClick={() => setOpen(open === event.id ? null : event.id)}
                    aria-label={`Correct: ${description.what} ${description.figure}`}
                  >
                    Correct
                  </button>
                ) : null}
              </div>
              {replaced ? (
                <p className="ml-[116px] text-[14px] text-soft">
                  {supersededBy.kind === "withdrawn" ? "taken back" : "corrected"} at {units.clock(supersededBy.arrivedAt)}
                  {supersededBy.personId ? ` by ${log.name(supersededBy.personId)}` : ""}
                </p>
              ) : null}
              {open === event.id ? <Correction event={event} log={log} onDone={() => setOpen((now) => (now === event.id ? null : now))} /> : null}
            </li>
          );
        })}
      </ol>
    </>
  );
}
