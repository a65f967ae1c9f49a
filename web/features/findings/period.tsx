"use client";

import { useMemo } from "react";
import { Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { pastDayRule } from "@/forms/rules";
import type { PeriodChoice, PeriodName } from "@/server/http/period";
import { useRouter } from "@/ui/address";
import { useUnits } from "@/ui/units";

const NAMES: Record<PeriodName, string> = {
  all: "all time",
  "this-year": "this year",
  "last-year": "last year",
  days: "from one day to another",
  since: "since a change",
};

/** Returns a page's address with what it asks for, and the period. */
export function periodAddress(
  path: string,
  asked: Readonly<Record<string, string | null>>,
  choice: Pick<PeriodChoice, "name" | "from" | "to" | "since">,
): string {
  const query = new URLSearchParams();
  for (const [key, value] of Object.entries(asked)) if (value) query.set(key, value);
  if (choice.name !== "all") query.set("when", choice.name);
  if (choice.from) query.set("from", choice.from);
  if (choice.to) query.set("to", choice.to);
  if (choice.since) query.set("since", choice.since);
  return query.size > 0 ? `${path}?${query}` : path;
}

/** Days from which and to which batches count. */
function Days({ choice, go }: { choice: PeriodChoice; go: (choice: Pick<PeriodChoice, "name" | "from" | "to" | "since">) => void }) {
  const units = useUnits();
  const rules = useMemo(() => {
    const day = (at: string | null): FieldRule<string | null> => ({ ...orNothing(pastDayRule(choice.today, units)), initial: at ? units.onDate(at) : "" });
    return { from: day(choice.from), to: day(choice.to) };
  }, [choice.from, choice.to, choice.today, units]);
  const fields = useFields(rules);
  return (
    <form
      ref={fields.form}
      className="flex flex-wrap items-start gap-x-3"
      onSubmit={(event) => {
        event.preventDefault();
        const all = fields.check();
        if (!all) return;
        const backwards = all.from && all.to && all.from > all.to;
        go({ name: "days", from: backwards ? all.to : all.from, to: backwards ? all.from : all.to, since: null });
      }}
    >
      <div className="w-[150px]">
        <Field label="From" {...fields.bind("from")} />
      </div>
      <div className="w-[150px]">
        <Field label="To (inclusive)" {...fields.bind("to")} />
      </div>
      <button type="submit" className="press mt-[27px]">
        Show period
      </button>
    </form>
  );
}

/** Which batches count, by when they were poured: all, a year, from one day to another, or since a formula was changed. */
export function PeriodPicker({ path, asked, choice }: { path: string; asked: Readonly<Record<string, string | null>>; choice: PeriodChoice }) {
  const units = useUnits();
  const router = useRouter();
  const go = (next: Pick<PeriodChoice, "name" | "from" | "to" | "since">) => router.push(periodAddress(path, asked, next));
  const named = (value: string) => {
    const name = value.startsWith("since:") ? "since" : (value as PeriodName);
    go({ name, from: null, to: null, since: name === "since" ? value.slice("since:".length) : null });
  };
  return (
    <div className="unprinted mb-3 flex flex-wrap items-start gap-x-4 gap-y-1">
      <label className="py-1">
        Poured{" "}
        <select
          aria-label="Poured"
          className="entry !w-auto max-w-[320px]"
          value={choice.name === "since" ? `since:${choice.since}` : choice.name}
          onChange={(event) => named(event.target.value)}
        >
          {(["all", "this-year", "last-year", "days"] as const).map((item) => (
            <option key={item} value={item}>
              {NAMES[item]}
            </option>
          ))}
          {choice.changes.length > 0 ? (
            <optgroup label={NAMES.since}>
              {choice.changes.map((change) => (
                <option key={change.id} value={`since:${change.id}`}>
                  {change.formula}, version {change.number}, {units.day(change.at)}
                </option>
              ))}
            </optgroup>
          ) : null}
        </select>
      </label>
      {choice.name === "days" ? <Days key={`${choice.from} ${choice.to}`} choice={choice} go={go} /> : null}
    </div>
  );
}
