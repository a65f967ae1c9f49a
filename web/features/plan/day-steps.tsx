"use client";

import type { Chore, DayRow } from "@hearth/core";
import { memo, useMemo, useState } from "react";
import { Field, useFields } from "@/forms/fields";
import { useIncrementalList } from "@/ui/use-incremental-list";
import { parseTimeOfDay } from "./day-rules";

interface StepsProps {
  rows: DayRow[];
  chores: Chore[];
  clock: (minutes: number) => string;
  minuteOf: (minutes: number) => number;
  /** Steps that are held, by "pot/step". */
  held: Readonly<Record<string, number>>;
  /** Holds a step to a minute, or lets it move again. */
  onHold: (row: string, step: string, minute: number | null) => void;
  onLook: (row: string | null) => void;
}

const NUDGE = 5;
/** So many lines are shown at first. */
const MAX_SHOWN = 80;

/** Holds one step to a time: by minutes, or by the clock. */
function Holding({
  start,
  held,
  onHold,
  minuteOf,
}: {
  start: number;
  held: boolean;
  onHold: (minute: number | null) => void;
  minuteOf: (minutes: number) => number;
}) {
  const rules = useMemo(() => ({ at: { initial: "", parse: parseTimeOfDay } }), []);
  const fields = useFields(rules);
  const at = fields.values.at;
  return (
    <div className="col-span-full flex flex-wrap items-end gap-2 pb-2">
      <button type="button" className="press" onClick={() => onHold(Math.max(0, start - NUDGE))}>
        {NUDGE} min earlier
      </button>
      <button type="button" className="press" onClick={() => onHold(start + NUDGE)}>
        {NUDGE} min later
      </button>
      <button type="button" className="press" onClick={() => onHold(held ? null : start)}>
        {held ? "Unpin" : "Pin here"}
      </button>
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (at !== undefined) onHold(Math.max(0, minuteOf(at)));
        }}
      >
        <div className="w-[120px]">
          <Field label="Pin at" {...fields.bind("at")} placeholder="11:20" />
        </div>
        <button type="submit" className="press mb-[22px]" disabled={at === undefined}>
          Hold
        </button>
      </form>
    </div>
  );
}

/** What the people do, minute by minute; each step can be held to its time. */
export const DaySteps = memo(function DaySteps({ rows, chores, clock, minuteOf, held: isHeldAt, onHold, onLook }: StepsProps) {
  const isHeld = (row: string, step: string) => isHeldAt[`${row}/${step}`] !== undefined;
  const [open, setOpen] = useState<string | null>(null);
  const list = [
    ...rows.flatMap((row) =>
      row.steps.map((step) => ({
        key: `${row.key}/${step.id}`,
        row,
        step,
        number: row.number,
        of: "",
        name: step.heats ? "put on the heat" : step.name,
        start: step.start,
        end: step.end,
      })),
    ),
    ...chores.flatMap((chore) =>
      chore.parts.map((part) => ({
        key: `${chore.key} ${part.start}`,
        row: null,
        step: null,
        number: chore.number,
        of: chore.of,
        name: chore.name,
        start: part.start,
        end: part.end,
      })),
    ),
  ].sort((a, b) => a.start - b.start || a.end - b.end);
  const { shown, more, showAll } = useIncrementalList(list.length, MAX_SHOWN);
  return (
    <section className="mt-6" aria-label="Minute by minute">
      <h2 className="border-b-[3px] border-ink pb-1">Minute by minute</h2>
      <ol>
        {list.slice(0, shown).map((item) => {
          const { row, step } = item;
          const held = row !== null && isHeld(row.key, step.id);
          return (
            <li
              key={item.key}
              className="grid grid-cols-[104px_minmax(0,1fr)_auto] items-center gap-x-4 border-b border-line py-[2px] sm:grid-cols-[150px_220px_minmax(0,1fr)_auto]"
              onPointerEnter={() => onLook(row?.key ?? null)}
              onPointerLeave={() => onLook(null)}
            >
              <span className="figure text-[18px]">
                {clock(item.start)}
                <span className="text-soft max-sm:hidden">–{clock(item.end)}</span>
              </span>
              <strong className={row ? "" : "font-normal"}>
                {item.name}
                {held ? <span className="font-normal text-soft"> ▼ pinned</span> : null}
              </strong>
              <span className="max-sm:col-start-2">
                {row ? `pot ${item.number}, ${row.name}` : `${item.of}, ${item.start < 0 ? "before the day begins" : "in a wait"}`}
              </span>
              {row ? (
                <button
                  type="button"
                  className="unprinted min-h-[44px] px-2 text-[14px] underline decoration-dotted underline-offset-4 max-sm:col-start-3 max-sm:row-start-1"
                  aria-expanded={open === item.key}
                  aria-label={`Move ${item.name}, pot ${item.number}`}
                  onClick={() => setOpen(open === item.key ? null : item.key)}
                >
                  move
                </button>
              ) : (
                <span />
              )}
              {row && open === item.key ? (
                <Holding start={item.start} held={held} minuteOf={minuteOf} onHold={(minute) => onHold(row.key, step.id, minute)} />
              ) : null}
            </li>
          );
        })}
      </ol>
      {more > 0 ? (
        <button type="button" className="press unprinted mt-3" onClick={showAll}>
          Show {more} more
        </button>
      ) : null}
    </section>
  );
});
