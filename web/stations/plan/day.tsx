"use client";

import {
  addDays,
  bad,
  dayAt,
  dayRequest,
  gatherPots,
  good,
  jobOfPot,
  type Parsed,
  type Process,
  type Readiness,
  readinessOf,
  timeOn,
  writeDuration,
} from "@hearth/core";
import Link from "next/link";
import { useMemo, useState } from "react";
import { useDraft } from "@/catalogue/draft";
import { Chooser } from "@/forms/chooser";
import { Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { countRule, massRule, percentRule } from "@/forms/rules";
import { readClock, readDay } from "@/forms/when";
import { Aside, Caution, Empty, Screen, Warn } from "@/ui/margin";
import { Timetable } from "@/ui/timetable";
import { useNow, useUnits, type Writers } from "@/ui/units";
import { useTimetable } from "./use-timetable";

export interface DayProduct {
  id: string;
  name: string;
  formulaId: string;
  /** Wax and oil in one piece, in mg. */
  fillMg: number;
}
export interface DayFormula {
  name: string;
  process: Process;
  components: number;
}

/** So many products stand there before one is looked for. */
const SHOWN = 8;
/** How long a timetable is searched, in seconds. */
const SECONDS = 6;

/** A time of the day, in minutes: "9", "9:30", "9.30", "2 pm". */
function parseTimeOfDay(text: string): Parsed<number> {
  const at = readClock(/^\s*\d{1,2}\s*$/.test(text) ? `${text.trim()}:00` : text);
  return at ? good(at.hour * 60 + at.minute) : bad("not-understood", "Write a time of the day, like 9:00 or 2 pm.");
}

/** A day that lies ahead, as the beginning of it; today is one. */
const dayRule = (today: string, units: Writers): FieldRule<string | null> =>
  orNothing({
    initial: "",
    parse: (text: string) => {
      const day = readDay(text, today, units.locale, true);
      if (!day) return bad("not-understood", `Write a day, like ${units.onDate(addDays(today, 14))}.`);
      return day < today ? bad("too-small", "That day is over.") : good(day);
    },
    echo: (day: string) => units.onDay(day),
  });

/** When a pot may be sold, and whether that is in time. */
function Ready({ of }: { of: Readiness }) {
  const units = useUnits();
  return (
    <div className="float-right ml-4 text-right text-[15px]">
      <div>
        {of.is === "ready" ? <span className="font-semibold text-inside">✓ </span> : null}
        may be sold, once tested, from <strong>{units.day(of.sellFrom)}</strong>
      </div>
      {of.is === "minimum" ? (
        <div className="font-semibold text-hot">▲ {writeDuration(of.short)} short of the recommended cure; the minimum is kept</div>
      ) : of.is === "late" ? (
        <div className="font-semibold text-hot">
          ▲ {writeDuration(of.short)} late even with the minimum cure: {of.latest ? `it had to be poured by ${units.day(of.latest.minimum)}` : ""}
        </div>
      ) : null}
    </div>
  );
}

/** From what is to be made to a day at the pots: which pots, what the hands do when, and what cannot be at once. */
export function DayPlan({ products, formulas }: { products: DayProduct[]; formulas: Record<string, DayFormula> }) {
  const units = useUnits();
  const now = useNow(60_000);
  const today = dayAt(now, units.zone);
  const [added, setAdded] = useState<string[]>([]);
  const [lit, setLit] = useState<string | null>(null);
  const shown = products.filter((one, at) => at < SHOWN || added.includes(one.id));
  const ids = shown.map((one) => one.id).join();
  const rules = useMemo(() => {
    const counts = Object.fromEntries(ids.split(",").map((id) => [`count:${id}`, orNothing(countRule({ least: 0, most: 2_000, name: "pieces" }))]));
    return {
      ...counts,
      on: dayRule(today, units),
      wanted: dayRule(today, units),
      begin: { initial: "9:00", parse: parseTimeOfDay } satisfies FieldRule<number>,
      hands: countRule({ least: 1, most: 9, name: "pairs of hands" }, "1"),
      burners: countRule({ least: 1, most: 20, name: "burners" }, "2"),
      pitchers: countRule({ least: 1, most: 40, name: "pitchers" }, "4"),
      holds: massRule(units, { initial: units.typed.about(1_500_000) }),
      spare: percentRule({ least: 0, most: 50, name: "the spare" }, "5"),
    } as Record<string, FieldRule<unknown>>;
  }, [ids, units, today]);
  const fields = useFields(rules);
  const draft = useDraft(
    "day",
    { ...fields.typed, added: added.join() },
    ({ added: more, ...typed }) => {
      setAdded((more ?? "").split(",").filter(Boolean));
      fields.fill(typed);
    },
    { title: "Typed before", says: "The day that was typed last is kept on this device." },
  );
  const v = fields.values as Record<string, unknown>;
  const figure = (name: string): number | null => (typeof v[name] === "number" ? (v[name] as number) : null);
  const [hands, burner, pitcher, holds, spare] = [figure("hands"), figure("burners"), figure("pitchers"), figure("holds"), figure("spare")];
  const counts = JSON.stringify(shown.map((one) => [one.id, figure(`count:${one.id}`) ?? 0]));
  const pots = useMemo(() => {
    const wanted = (JSON.parse(counts) as [string, number][]).flatMap(([id, count]) => {
      const product = products.find((one) => one.id === id);
      const formula = product && formulas[product.formulaId];
      return product && formula && count > 0
        ? [
            {
              productId: id,
              name: product.name,
              count,
              fillMg: product.fillMg,
              formulaId: product.formulaId,
              formulaName: formula.name,
              process: formula.process,
              components: formula.components,
            },
          ]
        : [];
    });
    return holds === null || spare === null ? [] : gatherPots(wanted, holds, spare);
  }, [counts, products, formulas, holds, spare]);
  const jobs = useMemo(() => pots.map((pot, at) => ({ pot: { ...pot, number: at + 1 }, ...jobOfPot(pot) })), [pots]);
  const request = jobs.length > 0 && hands && burner && pitcher ? dayRequest(jobs, { hands, burner, pitcher }, SECONDS) : null;
  const { state, stop } = useTimetable(request);
  const answer = state.is === "looking" || state.is === "done" ? state.answer : null;

  const day = typeof v.on === "string" ? v.on : today;
  const wanted = typeof v.wanted === "string" ? new Date(timeOn(v.wanted, 0, units.zone)).toISOString() : null;
  const begin = new Date(timeOn(day, figure("begin") ?? 540, units.zone)).toISOString();
  const clock = (minutes: number) => units.clock(new Date(Date.parse(begin) + minutes * 60_000).toISOString());
  const rows = useMemo(() => {
    const at = new Map((answer?.steps ?? []).map((one) => [`${one.job}/${one.step}`, one]));
    return jobs.flatMap(({ pot, steps, job }) => {
      const placed = steps.flatMap((step) => {
        const one = at.get(`${job.id}/${step.id}`);
        return one ? [{ ...step, start: one.start, end: one.end }] : [];
      });
      return placed.length === steps.length ? [{ key: pot.key, name: pot.formulaName, number: pot.number, steps: placed }] : [];
    });
  }, [answer, jobs]);
  const list = rows.flatMap((row) => row.steps.map((step) => ({ row, step }))).sort((a, b) => a.step.start - b.step.start || a.step.end - b.step.end);
  /** When the last of a pot is poured. */
  const pouredAt = (key: string) => {
    const pours = rows.find((row) => row.key === key)?.steps.filter((step) => step.pours) ?? [];
    return new Date(Date.parse(begin) + (pours.at(-1)?.end ?? 0) * 60_000).toISOString();
  };
  const atHands = list.filter(({ step }) => step.hands).reduce((sum, { step }) => sum + step.end - step.start, 0);

  if (products.length === 0)
    return (
      <Screen title="A day at the pots" lead="What the hands do when, so that no two pots need them at once.">
        <Empty
          title="No product yet"
          action={
            <Link className="act" href="/products/new" data-next-step>
              Make a product
            </Link>
          }
        >
          <p>A day is planned from what is to be made: products, each a formula in its vessel. Make one, and come back.</p>
        </Empty>
      </Screen>
    );
  return (
    <Screen
      title="A day at the pots"
      lead="Type what is to be made; the pots are put so that no two need the same hands at once, and each is poured while it is inside its range."
      actions={
        <>
          <Link className="press" href="/plan">
            Plan one batch
          </Link>
          <button type="button" className="press" onClick={() => window.print()} disabled={rows.length === 0}>
            Print
          </button>
        </>
      }
      side={
        <>
          {draft.offer}
          {state.is === "failed" ? <Warn>{state.message}</Warn> : null}
          {answer?.infeasible ? <Warn>{answer.infeasible.reason}</Warn> : null}
          {answer && !answer.infeasible ? (
            <section aria-label="How good it is" className="text-[15px]">
              <h2 className="text-[17px]">How good it is</h2>
              <p className="mt-1" aria-live="polite">
                {answer.proved_optimal ? (
                  <strong className="text-inside">✓ proved: no timetable ends sooner</strong>
                ) : (
                  <>
                    It ends after {writeDuration(answer.makespan * 60)}; none can end before {writeDuration(answer.lower_bound * 60)}.
                  </>
                )}
              </p>
              {state.is === "looking" ? (
                <button type="button" className="press mt-2" onClick={stop}>
                  Stop looking, keep this
                </button>
              ) : null}
            </section>
          ) : null}
          <Caution title="Hot wax">Never leave a pot on the heat for another. If you are called away, take it off first.</Caution>
          <Aside title="What the times rest on">
            A pound of wax takes about 17 minutes to melt; a jar is poured in 20 seconds; a kilogram falls half of its way to the room in an hour. They are
            usual times, not yours: log a few batches, and look whether the pots keep to them.
          </Aside>
          <Aside title="Windows">
            A pot waits on its burner for at most 15 minutes. From adding to pouring it waits as long as it takes to fall into the pour range, and no longer
            than it stays inside.
          </Aside>
        </>
      }
    >
      <form className="unprinted" onSubmit={(event) => event.preventDefault()}>
        <section className="sheet">
          <h2 className="mb-2">What is to be made</h2>
          <ul aria-label="Products" className="grid grid-cols-2 items-end gap-x-5 lg:grid-cols-4">
            {shown.map((one) => (
              <li key={one.id}>
                <Field label={one.name} {...fields.bind(`count:${one.id}`)} inputMode="numeric" placeholder="none" />
              </li>
            ))}
          </ul>
          {products.length > shown.length ? (
            <div className="mt-2 max-w-[420px]">
              <Chooser
                label="Another product"
                value=""
                options={products.filter((one) => !shown.includes(one)).map((one) => ({ value: one.id, name: one.name }))}
                onValue={(id) => setAdded((old) => [...old, id])}
              />
            </div>
          ) : null}
        </section>
        <section className="sheet mt-5">
          <h2 className="mb-2">What you work with</h2>
          <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-4">
            <Field label="Day" {...fields.bind("on")} placeholder="today" />
            <Field label="Begin at" {...fields.bind("begin")} />
            <Field label="Wanted by" {...fields.bind("wanted")} placeholder="no day" />
            <Field label="Pairs of hands" {...fields.bind("hands")} inputMode="numeric" />
            <Field label="Burners" {...fields.bind("burners")} inputMode="numeric" />
            <Field label="Pitchers" {...fields.bind("pitchers")} inputMode="numeric" />
            <Field label="A pitcher holds" unit={units.mass} {...fields.bind("holds")} inputMode="decimal" />
            <Field label="Spare" unit="%" {...fields.bind("spare")} inputMode="decimal" />
          </div>
        </section>
      </form>
      {request === null ? (
        <p className="mt-6 text-soft">Type how many of each, and the day stands here.</p>
      ) : (
        <>
          <section className="sheet mt-6" aria-label="Timetable">
            <div className="mb-2 flex flex-wrap items-baseline gap-x-6">
              <h2>
                {pots.length} {pots.length === 1 ? "pot" : "pots"}
              </h2>
              {answer && rows.length > 0 ? (
                <p>
                  <span className="figure text-[34px] leading-none">
                    {clock(0)}–{clock(answer.makespan)}
                  </span>{" "}
                  <span className="text-soft">hands at work {writeDuration(atHands * 60)}</span>
                </p>
              ) : (
                <p className="text-soft">Working it out…</p>
              )}
            </div>
            {rows.length > 0 ? <Timetable rows={rows} begin={begin} lit={lit} label="The day by pot" /> : null}
            <p className="mt-1 text-[14px] text-soft">■ hands&ensp; ▨ on the heat&ensp; ─ waiting, cooling</p>
          </section>
          {rows.length > 0 ? (
            <section className="mt-6" aria-label="Minute by minute">
              <h2 className="border-b-[3px] border-ink pb-1">Minute by minute</h2>
              <ol>
                {list.map(({ row, step }) => (
                  <li
                    key={`${row.key}${step.id}`}
                    className="grid grid-cols-[104px_minmax(0,1fr)] items-baseline gap-x-4 border-b border-line py-[6px] sm:grid-cols-[150px_220px_minmax(0,1fr)]"
                    onPointerEnter={() => setLit(row.key)}
                    onPointerLeave={() => setLit(null)}
                  >
                    <span className="figure text-[18px]">
                      {clock(step.start)}
                      <span className="text-soft max-sm:hidden">–{clock(step.end)}</span>
                    </span>
                    <strong>{step.heats ? "put on the heat" : step.name}</strong>
                    <span className="max-sm:col-start-2">
                      pot {row.number}, {row.name}
                    </span>
                  </li>
                ))}
              </ol>
              <h2 className="mt-6 border-b-[3px] border-ink pb-1">What goes into each pot</h2>
              <ul>
                {jobs.map(({ pot, setMinutes }) => (
                  <li key={pot.key} className="border-b border-line py-2">
                    <Ready of={readinessOf(pouredAt(pot.key), pot.process, wanted)} />
                    pot {pot.number}, <strong>{pot.formulaName}</strong> <span className="figure text-[18px]">{units.bulk(pot.totalMg)}</span>
                    <span className="block text-[15px]">{pot.lines.map((line) => `${line.count} × ${line.name}`).join(", ")}</span>
                    {setMinutes > 0 ? <span className="block text-[14px] text-soft">left unmoved for {writeDuration(setMinutes * 60)}</span> : null}
                  </li>
                ))}
              </ul>
            </section>
          ) : null}
        </>
      )}
    </Screen>
  );
}
