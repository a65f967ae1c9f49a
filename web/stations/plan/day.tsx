"use client";

import {
  choresOf,
  type DayRecord,
  type DayRow,
  dayAt,
  heatOf,
  lanesOf,
  type DayProduct as Making,
  movesOf,
  type PlanningSettings,
  type Process,
  readinessOf,
  requestOfDay,
  rowsOf,
  type SeasonProduct,
  sunOver,
  type ToLabel,
  timeOn,
  workOfDay,
  writeDuration,
} from "@hearth/core";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { Chooser } from "@/forms/chooser";
import { Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { countRule, massRule, percentRule } from "@/forms/rules";
import { usePlace } from "@/log/place";
import { InTurn, useStable } from "@/ui/growing";
import { Aside, Caution, Empty, Screen, Warn } from "@/ui/margin";
import { Timetable } from "@/ui/timetable/timetable";
import { useNow, useUnits } from "@/ui/units";
import { DayLosses } from "./day-losses";
import { DayMoves } from "./day-moves";
import { DayPots } from "./day-pots";
import { dayRule, parseTimeOfDay, typedMinutes } from "./day-rules";
import { DaySteps } from "./day-steps";
import { useActs, useKeptDay } from "./use-day";
import { useTimetable } from "./use-timetable";

/** So many products stand there before one is looked for. */
const SHOWN = 8;
/** How long a timetable is searched, in seconds. */
const SECONDS = 6;

/** A product as a day makes it, with its body to start a batch from. */
export type DayProduct = SeasonProduct & { bodyId: string };

interface DayProps {
  on: string;
  products: DayProduct[];
  /** The day as it was left; null where nobody has planned it. */
  kept: DayRecord | null;
  version: number;
  /** Pieces by product that the plan puts on this day. */
  planned: Record<string, number>;
  settings: PlanningSettings;
  /** Batches whose cure is over by this day. */
  labels: ToLabel[];
}

/** From what is to be made to a day at the pots: which pots, what the hands do when, and what cannot be at once. */
export function DayPlan({ on, products, kept, version, planned, settings, labels }: DayProps) {
  const units = useUnits();
  const router = useRouter();
  const { workshopId } = usePlace();
  const now = useNow(60_000);
  const today = dayAt(now, units.zone);
  const [added, setAdded] = useState<string[]>([]);
  const [lit, setLit] = useState<string | null>(null);
  const counts = kept?.counts ?? planned;
  const shown = products.filter((one, at) => at < SHOWN || added.includes(one.id) || counts[one.id]);
  const ids = shown.map((one) => one.id).join();
  const rules = useMemo(() => {
    const from = kept ?? { ...settings, begin: settings.hours.find((one) => one)?.from ?? 540 };
    return {
      ...Object.fromEntries(
        ids
          .split(",")
          .map((id) => [`count:${id}`, orNothing(countRule({ least: 1, most: 2_000, name: "pieces" }, counts[id] === undefined ? "" : String(counts[id])))]),
      ),
      on: dayRule(today, units),
      wanted: dayRule(today, units),
      begin: { initial: typedMinutes(from.begin), parse: parseTimeOfDay } satisfies FieldRule<number>,
      hands: countRule({ least: 1, most: 9, name: "pairs of hands" }, String(from.hands)),
      burners: countRule({ least: 1, most: 20, name: "burners" }, String(from.burners)),
      pitchers: countRule({ least: 1, most: 40, name: "pitchers" }, String(from.pitchers)),
      pitcherMg: massRule(units, { initial: units.typed.about(from.pitcherMg) }),
      sparePpm: percentRule({ least: 0, most: 50, name: "the spare" }, String(from.sparePpm / 10_000)),
    } as Record<string, FieldRule<unknown>>;
  }, [ids, units, today, kept, settings, counts]);
  const fields = useFields(rules);
  const { acts, act, undo, canUndo } = useActs({ held: kept?.held ?? {}, breaks: kept?.breaks ?? [], lost: kept?.lost ?? [], gone: kept?.gone ?? {} });
  const v = fields.values as Record<string, unknown>;
  const figure = (name: string): number | null => (typeof v[name] === "number" ? (v[name] as number) : null);
  // Another day is another page.
  const goTo = typeof v.on === "string" && v.on !== on ? v.on : null;
  useEffect(() => {
    if (!goTo) return;
    const timer = setTimeout(() => router.replace(`/plan/day?on=${goTo}`), 600);
    return () => clearTimeout(timer);
  }, [goTo, router]);

  const typed = JSON.stringify({
    counts: Object.fromEntries(shown.flatMap((one) => (figure(`count:${one.id}`) ? [[one.id, figure(`count:${one.id}`)]] : []))),
    ...Object.fromEntries(["begin", "hands", "burners", "pitchers", "pitcherMg", "sparePpm"].map((name) => [name, figure(name)])),
  });
  const record = useMemo((): DayRecord | null => {
    const { counts: made, ...rest } = JSON.parse(typed) as Omit<DayRecord, keyof typeof acts>;
    return Object.values(rest).includes(null as never) ? null : { counts: made, ...rest, ...acts };
  }, [typed, acts]);
  const untouched = kept === null && Object.keys(planned).length === 0 && record !== null && Object.keys(record.counts).length === 0;
  const { said, kept: isKept } = useKeptDay(on, untouched ? null : record, { version, data: kept });

  const making = useMemo((): Making[] => products.map((one) => ({ ...one, productId: one.id })), [products]);
  const work = useMemo(() => (record ? workOfDay(record, making) : []), [record, making]);
  const request = useMemo(() => (record && work.length > 0 ? requestOfDay(record, work, SECONDS) : null), [record, work]);
  const { state, stop } = useTimetable(request);
  const answer = state.is === "looking" || state.is === "done" ? state.answer : null;
  const fresh = useDeferredValue(useMemo(() => rowsOf(work, answer), [work, answer]));
  // Until the next is found, and where a wish cannot be, the timetable before it stays in sight.
  const last = useRef<DayRow[]>([]);
  if (fresh.length > 0) last.current = fresh;
  const rows = useMemo(
    () => (fresh.length > 0 ? fresh : last.current.filter((row) => work.some((one) => one.pot.key === row.key && one.steps.length === row.steps.length))),
    [fresh, work],
  );
  const chores = useMemo(() => (record ? choresOf(work, rows, record, labels) : []), [work, rows, record, labels]);
  const lanes = useMemo(
    () =>
      (["burner", "pitcher"] as const).flatMap((one) =>
        lanesOf(work, rows, one).map((taken, at, all) => ({ name: all.length > 1 ? `${one} ${at + 1}` : one, taken })),
      ),
    [work, rows],
  );
  const heats = useMemo(
    () => rows.map((row) => ({ key: row.key, number: row.number, points: heatOf(row, work.find((one) => one.pot.key === row.key)?.pot.totalMg ?? 1_000_000) })),
    [rows, work],
  );
  // What moved since the last act, once the search has an answer to it.
  const [before, setBefore] = useState<DayRow[] | null>(null);
  const moves = before && fresh.length > 0 && state.is === "done" ? movesOf(before, fresh) : [];

  const wanted = typeof v.wanted === "string" ? new Date(timeOn(v.wanted, 0, units.zone)).toISOString() : null;
  const begin = new Date(timeOn(on, record?.begin ?? 540, units.zone)).toISOString();
  const at = useCallback((minutes: number) => new Date(Date.parse(begin) + minutes * 60_000).toISOString(), [begin]);
  const clock = useCallback((minutes: number) => units.clock(at(minutes)), [units, at]);
  const ready = useCallback(
    (key: string, process: Process) => readinessOf(at(rows.find((row) => row.key === key)?.steps.findLast((step) => step.pours)?.end ?? 0), process, wanted),
    [rows, at, wanted],
  );
  /** How far the day has gone; 0 before it begins. */
  const gone = on === today ? Math.max(0, Math.floor((Date.parse(now) - Date.parse(begin)) / 60_000)) : 0;
  const change = (next: Parameters<typeof act>[0]) => {
    setBefore(rows);
    act(next);
  };
  /** What has begun already stays as it was. */
  const begun = (but: string | null) => ({
    ...acts.held,
    ...Object.fromEntries(
      rows.flatMap((row) => (row.key === but ? [] : row.steps.flatMap((step) => (step.start < gone ? [[`${row.key}/${step.id}`, step.start]] : [])))),
    ),
  });
  const hold = (row: string, step: string, minute: number | null) => {
    const { [`${row}/${step}`]: _was, ...others } = acts.held;
    change({ held: minute === null ? others : { ...others, [`${row}/${step}`]: minute } });
  };
  const onHold = useStable(hold);
  const onGone = useStable((key: string) => change({ gone: { ...acts.gone, [key]: gone }, held: begun(key) }));
  const drawn = useMemo(
    () => rows.map((row) => ({ ...row, steps: row.steps.map((step) => ({ ...step, held: acts.held[`${row.key}/${step.id}`] !== undefined })) })),
    [rows, acts.held],
  );
  const from = record?.begin ?? 540;
  const minuteOf = useCallback((minutes: number) => minutes - from, [from]);
  const makespan = Math.max(0, ...rows.flatMap((row) => row.steps.map((step) => step.end)));
  const starts = Math.min(0, ...chores.flatMap((one) => one.parts.map((part) => part.start)));
  const atHands =
    rows.reduce((sum, row) => sum + row.steps.reduce((all, step) => all + (step.hands ? step.end - step.start : 0), 0), 0) +
    chores.reduce((sum, one) => sum + one.parts.reduce((all, part) => all + part.end - part.start, 0), 0);
  const differs = kept !== null && Object.entries(planned).some(([id, count]) => (record?.counts[id] ?? 0) !== count);
  const sun = [
    ...new Set(
      rows.flatMap((row) => {
        const pot = work.find((one) => one.pot.key === row.key)?.pot;
        const end = row.steps.findLast((step) => step.pours)?.end;
        return pot && end !== undefined ? sunOver(at(end), pot.process, settings.sun, units.zone) : [];
      }),
    ),
  ].sort();

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
  const fault = answer?.infeasible;
  const faultPot = fault && work.find((one) => one.pot.key === fault.job);
  const faultStep = faultPot?.steps.find((one) => one.id === fault?.step)?.name;
  return (
    <Screen
      title={`At the pots, ${units.onDay(on)}`}
      lead="The pots stand so that no two need the same hands at once, and each is poured while it is inside its range. Draw a step to another time, and the rest moves to fit."
      actions={
        <>
          <Link className="press" href="/plan/wanted">
            What is wanted
          </Link>
          {rows.length > 0 ? (
            <>
              <a className="press" href={`/api/workshops/${workshopId}/days/${on}/sheet`} target="_blank" rel="noreferrer">
                Batch sheets (PDF)
              </a>
              <a className="press" href={`/api/workshops/${workshopId}/days/${on}/sheet?what=tags`} target="_blank" rel="noreferrer">
                Jar tags (PDF)
              </a>
            </>
          ) : null}
          <button type="button" className="press" onClick={() => window.print()} disabled={rows.length === 0}>
            Print
          </button>
        </>
      }
      side={
        <>
          {said ? <Warn>{said}</Warn> : null}
          {state.is === "failed" ? <Warn>{state.message}</Warn> : null}
          {fault ? (
            <div role="alert">
              <Warn>
                {faultPot && fault.window ? (
                  <>
                    Pot {faultPot.pot.number} cannot “{faultStep}” at that time: with what else is held, it can start{" "}
                    {fault.window.to === undefined
                      ? `from ${clock(fault.window.from)} on`
                      : `only from ${clock(fault.window.from)} to ${clock(fault.window.to)}`}
                    . Outside of that it is not inside its range, or what comes before it is not done.
                  </>
                ) : faultPot && fault.resource ? (
                  `Pot ${faultPot.pot.number}, “${faultStep}”: there is not enough of what it needs (${fault.resource}) at that time.`
                ) : (
                  "That cannot all be kept as it is held. Let one step move again."
                )}
              </Warn>
              {canUndo ? (
                <button type="button" className="press mt-2" onClick={undo}>
                  Undo
                </button>
              ) : null}
            </div>
          ) : null}
          {differs ? (
            <div>
              <Warn>The plan puts other counts on this day than stand here.</Warn>
              <button
                type="button"
                className="press mt-2"
                onClick={() => {
                  setAdded((old) => [...old, ...Object.keys(planned)]);
                  fields.fill(Object.fromEntries(products.map((one) => [`count:${one.id}`, planned[one.id] === undefined ? "" : String(planned[one.id])])));
                }}
              >
                Take over the plan's
              </button>
            </div>
          ) : null}
          {answer && !fault ? (
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
          <DayMoves moves={moves} clock={clock} canUndo={canUndo} onUndo={undo} />
          {sun.length > 0 ? (
            <Warn>
              The sun comes onto the table at {sun.map((moment) => units.dayClock(moment)).join(", ")}, while candles set there: stand them in the shade, or
              they sweat.
            </Warn>
          ) : null}
          <Caution title="Hot wax">Never leave a pot on the heat for another. If you are called away, take it off first.</Caution>
          <Aside title="What the times rest on">
            A pound of wax takes about 17 minutes to melt; a jar is poured in 20 seconds and wicked in 45; a kilogram falls half of its way to the room in an
            hour. They are usual times, not yours: log a few batches, and look whether the pots keep to them.
          </Aside>
          <Aside title="Windows">
            A pot waits on its burner for at most 15 minutes. From adding to pouring it waits as long as it takes to fall into the pour range, and no longer
            than it stays inside.
          </Aside>
        </>
      }
    >
      <form ref={fields.form} className="unprinted" onSubmit={(event) => event.preventDefault()}>
        <section className="sheet">
          <div className="mb-2 flex flex-wrap items-baseline gap-x-4">
            <h2>What is to be made</h2>
            <span className="text-[14px] text-soft" role="status">
              {isKept ? "✓ kept" : ""}
            </span>
          </div>
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
            <Field label="Day" {...fields.bind("on")} placeholder={units.onDate(on)} />
            <Field label="Begin at" {...fields.bind("begin")} />
            <Field label="Wanted by" {...fields.bind("wanted")} placeholder="no day" />
            <Field label="Pairs of hands" {...fields.bind("hands")} inputMode="numeric" />
            <Field label="Burners" {...fields.bind("burners")} inputMode="numeric" />
            <Field label="Pitchers" {...fields.bind("pitchers")} inputMode="numeric" />
            <Field label="A pitcher holds" unit={units.mass} {...fields.bind("pitcherMg")} inputMode="decimal" />
            <Field label="Spare" unit="%" {...fields.bind("sparePpm")} inputMode="decimal" />
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
                {work.length} {work.length === 1 ? "pot" : "pots"}
              </h2>
              {rows.length > 0 ? (
                <p>
                  <span className="figure text-[34px] leading-none">
                    {clock(starts)}–{clock(makespan)}
                  </span>{" "}
                  <span className="text-soft">hands at work {writeDuration(atHands * 60)}</span>
                </p>
              ) : (
                <p className="text-soft">{fault ? "No timetable keeps this." : "Working it out…"}</p>
              )}
            </div>
            {rows.length > 0 ? (
              <Timetable
                rows={drawn}
                begin={begin}
                lit={lit}
                label="The day by pot"
                chores={chores}
                breaks={acts.breaks}
                lanes={lanes}
                heats={heats}
                onMove={onHold}
              />
            ) : null}
            <p className="mt-1 text-[14px] text-soft">
              ■ hands&ensp; □ hands in a wait: oils, wicks, labels&ensp; ▨ on the heat&ensp; ─ waiting, cooling&ensp; ▼ held to its time&ensp; below: how warm
              each pot is thought to be
            </p>
          </section>
          {rows.length > 0 ? (
            <InTurn>
              <DayLosses
                breaks={acts.breaks}
                lost={acts.lost}
                clock={clock}
                minuteOf={minuteOf}
                onBreaks={(breaks) => change({ breaks })}
                onLost={(lost) => change({ lost, held: begun(null) })}
              />
              <DaySteps rows={rows} chores={chores} clock={clock} minuteOf={minuteOf} held={acts.held} onHold={onHold} onLook={setLit} />
              <DayPots work={work} ready={ready} products={products} gone={Object.keys(acts.gone).length} onGone={onGone} />
            </InTurn>
          ) : null}
        </>
      )}
    </Screen>
  );
}
