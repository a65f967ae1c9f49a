"use client";

import type { DayRecord } from "@hearth/core";
import { useMemo } from "react";
import { Field, useFields } from "@/forms/fields";
import { durationRule } from "@/forms/rules";
import { parseTimeOfDay } from "./day-rules";

interface LossesProps {
  breaks: DayRecord["breaks"];
  lost: DayRecord["lost"];
  clock: (minutes: number) => string;
  /** Minutes after midnight as minutes from the beginning of the day. */
  minuteOf: (minutes: number) => number;
  onBreaks: (breaks: DayRecord["breaks"]) => void;
  onLost: (lost: DayRecord["lost"]) => void;
}

const THINGS = [
  { value: "burner", label: "a burner" },
  { value: "pitcher", label: "a pitcher" },
  { value: "hands", label: "a person" },
];
const QUARTER = 15;

/** Breaks, and resources lost during the day: the rest of the day is moved to fit. */
export function DayLosses({ breaks, lost, clock, minuteOf, onBreaks, onLost }: LossesProps) {
  const rules = useMemo(
    () => ({
      from: { initial: "12:30", parse: parseTimeOfDay },
      minutes: durationRule(8 * 3_600, "30"),
      of: { initial: "burner", parse: (text: string) => ({ ok: true as const, value: text as DayRecord["lost"][number]["of"] }) },
      since: { initial: "", parse: parseTimeOfDay },
    }),
    [],
  );
  const fields = useFields(rules);
  const { from, minutes, of, since } = fields.values;
  return (
    <section className="unprinted mt-4 grid gap-x-8 gap-y-3 sm:grid-cols-2" aria-label="Breaks and outages">
      <div>
        <div className="grid grid-cols-[1fr_1fr_auto] items-start gap-x-3">
          <Field label="Break from" {...fields.bind("from")} />
          <Field label="for" unit="min" {...fields.bind("minutes")} inputMode="numeric" />
          <button
            type="button"
            className="press mt-[26px]"
            disabled={from === undefined || minutes === undefined || minuteOf(from) < 0}
            onClick={() =>
              from !== undefined && minutes !== undefined && onBreaks([...breaks, { from: minuteOf(from), minutes: Math.max(1, Math.round(minutes / 60)) }])
            }
          >
            Add
          </button>
        </div>
        <ul>
          {breaks.map((item, index) => (
            <li key={`${item.from} ${index}`} className="flex flex-wrap items-center gap-2 py-1">
              <span className="min-w-0 flex-1">
                break {clock(item.from)}–{clock(item.from + item.minutes)}
              </span>
              <button
                type="button"
                className="press"
                onClick={() => onBreaks(breaks.map((other) => (other === item ? { ...item, minutes: item.minutes + QUARTER } : other)))}
              >
                +{QUARTER} min
              </button>
              <button
                type="button"
                className="press"
                aria-label={`Without the break at ${clock(item.from)}`}
                onClick={() => onBreaks(breaks.filter((other) => other !== item))}
              >
                ✕
              </button>
            </li>
          ))}
        </ul>
      </div>
      <div>
        <div className="grid grid-cols-[1fr_1fr_auto] items-start gap-x-3">
          <Field label="Lost" {...fields.bind("of")} options={THINGS} />
          <Field label="since" {...fields.bind("since")} placeholder="11:20" />
          <button
            type="button"
            className="press mt-[26px]"
            disabled={since === undefined || of === undefined}
            onClick={() => since !== undefined && of !== undefined && onLost([...lost, { of, from: Math.max(0, minuteOf(since)) }])}
          >
            Replan
          </button>
        </div>
        <ul>
          {lost.map((item, index) => (
            <li key={`${item.of} ${index}`} className="flex items-center gap-2 py-1">
              <span className="min-w-0 flex-1">
                {THINGS.find((thing) => thing.value === item.of)?.label} lost since {clock(item.from)}
              </span>
              <button type="button" className="press" onClick={() => onLost(lost.filter((other) => other !== item))}>
                Back in service
              </button>
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}
