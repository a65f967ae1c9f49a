"use client";

import { MARKS, NO_CERTIFICATE, type TrialPlan, type TrialState, variantsOf, variantWords, verdictOf } from "@hearth/core";
import { memo, useMemo, useState } from "react";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { WideTable } from "@/ui/wide-table";
import { type Measured, trendOf } from "./model";
import { dashOf, PoolChart } from "./pool-chart";
import { sayRate, saySpan } from "./say";
import type { Trial } from "./use-trial";

interface Of {
  plan: TrialPlan;
  state: TrialState;
}

/** From top to bottom of a jar: the widest pool of each session as a share of the jar where the wax stood. */
const Trend = memo(function Trend({ plan, state }: Of) {
  const units = useUnits();
  const rows = plan.testCandles.flatMap((testCandle) => {
    const trend = trendOf(testCandle, state.testCandles[testCandle.key] ?? { sessions: [], stopped: null });
    return trend.length > 1 ? [{ key: testCandle.key, trend }] : [];
  });
  if (rows.length === 0) return null;
  const most = Math.max(...rows.map((row) => row.trend.at(-1)?.session ?? 0));
  return (
    <section className="mt-6">
      <h2>From top to bottom</h2>
      <p className="text-soft">The widest pool of each session, as a share of the jar's width at the wax line. A tapered jar burns hotter lower down.</p>
      <WideTable label="Pool by session" least={380} heads={["test candle", ...Array.from({ length: most }, (_, index) => `session ${index + 1}`)]}>
        {rows.map((row) => (
          <tr key={row.key} className="border-b border-line">
            <th scope="row" className="figure py-1 text-left text-[20px]">
              {row.key}
            </th>
            {Array.from({ length: most }, (_, index) => {
              const cell = row.trend.find((each) => each.session === index + 1);
              return (
                <td key={index} className="figure pr-4 text-[18px]">
                  {cell ? `${units.n(cell.share * 100, 0)} %` : "–"}
                  {cell ? <span className="block text-[13px] font-normal text-soft">of {units.len(cell.widthUm)}</span> : null}
                </td>
              );
            })}
          </tr>
        ))}
      </WideTable>
    </section>
  );
});

/** The workshop's own marks beside the built-in checks, test candle by test candle: the mean of each over all checks. */
const OwnMarks = memo(function OwnMarks({ plan, state }: Of) {
  const units = useUnits();
  const marks = plan.ownMarks ?? [];
  if (marks.length === 0) return null;
  const checksOf = (key: string) => (state.testCandles[key]?.sessions ?? []).flatMap((session) => session.checks);
  const mean = (values: readonly number[]) => (values.length > 0 ? units.n(values.reduce((a, b) => a + b, 0) / values.length, 1) : "–");
  const share = (key: string, isSo: (check: ReturnType<typeof checksOf>[number]) => boolean | undefined) => {
    const told = checksOf(key).flatMap((check) => isSo(check) ?? []);
    return told.length > 0 ? `${told.filter(Boolean).length} of ${told.length}` : "–";
  };
  return (
    <section className="mt-6">
      <h2>Your own marks</h2>
      <WideTable label="Own marks" least={420} heads={["test candle", ...marks.map((mark) => `${mark}, of 10`), "soot at", "mushroom at", "steady flame at"]}>
        {plan.testCandles.map(({ key, variant }) => (
          <tr key={key} className="border-b border-line">
            <th scope="row" className="py-1 text-left">
              <span className="figure text-[20px]">{key}</span> <span className="font-normal text-soft">{variantWords(plan, variant)}</span>
            </th>
            {marks.map((mark) => (
              <td key={mark} className="figure pr-3 text-[20px]">
                {mean(checksOf(key).flatMap((check) => check.marks?.[mark] ?? []))}
              </td>
            ))}
            <td className="pr-3">{share(key, (check) => (check.soot === undefined ? undefined : check.soot !== "none"))}</td>
            <td className="pr-3">{share(key, (check) => (check.mushroom === undefined ? undefined : check.mushroom !== "none"))}</td>
            <td>{share(key, (check) => (check.flame === undefined ? undefined : check.flame === "steady"))}</td>
          </tr>
        ))}
      </WideTable>
    </section>
  );
});

/** How fast each test candle burns, and how long it will. */
const Rates = memo(function Rates({ plan, state }: Of) {
  const units = useUnits();
  const verdicts = useMemo(() => plan.testCandles.flatMap((testCandle) => verdictOf(plan, state, testCandle.key, units) ?? []), [plan, state, units]);
  const weighed = verdicts.filter((verdict) => verdict.grams_per_hour !== null);
  return (
    <section className="mt-6">
      <h2>Burn rate and burn time</h2>
      {weighed.length === 0 ? (
        <p className="text-soft">No session was weighed before and after yet.</p>
      ) : (
        <WideTable label="Consumption" least={560} heads={["test candle", "an hour, with 95 %", "still burns for about", "the whole candle about"]}>
          {weighed.map((verdict) => (
            <tr key={verdict.key} className="border-b border-line">
              <th scope="row" className="figure py-1 text-left text-[20px]">
                {verdict.key}
              </th>
              <td className="figure pr-3 text-[18px]">{sayRate(units, verdict.grams_per_hour)}</td>
              <td className="figure pr-3 text-[18px]">{saySpan(units, verdict.hours_left)}</td>
              <td className="figure text-[18px]">{saySpan(units, verdict.hours_whole)}</td>
            </tr>
          ))}
        </WideTable>
      )}
      <p className="mt-1 text-[15px] text-soft">
        With one session, the estimate is 25 % either way; with more, a 95 % interval. The jar's weight is its first weight less what was poured in.
      </p>
    </section>
  );
});

/** The results of a trial: pools against time, burn rates and burn times, and the limits that they are compared with. */
export function Shown({ trial }: { trial: Trial }) {
  const units = useUnits();
  const [what, setWhat] = useState<Measured>("pool");
  const sessions = Math.max(0, ...Object.values(trial.state.testCandles).map((testCandle) => testCandle.sessions.length));
  // The newest session that most test candles have: what tells.
  const most = Array.from({ length: sessions }, (_, index) => sessions - index).find(
    (value) =>
      Object.values(trial.state.testCandles).filter((each) => (each.sessions[value - 1]?.checks.length ?? 0) > 0).length * 2 >= trial.plan.testCandles.length,
  );
  const [session, setSession] = useState<number | null>(most ?? null);
  const variants = variantsOf(trial.plan);
  return (
    <>
      {sessions === 0 ? <p className="text-soft">Nothing has burned yet: checks are drawn here.</p> : null}
      <div className="unprinted flex flex-wrap gap-2">
        {(["pool", "depth"] as const).map((item) => (
          <button
            key={item}
            type="button"
            aria-pressed={what === item}
            className={press({ size: "small", className: "aria-pressed:bg-ink aria-pressed:text-sheet" })}
            onClick={() => setWhat(item)}
          >
            {item === "pool" ? "How wide" : "How deep"}
          </button>
        ))}
        <label className="text-[15px]">
          Session{" "}
          <select
            className="entry !min-h-[36px] !w-auto !py-0"
            value={session ?? ""}
            onChange={(event) => setSession(event.target.value === "" ? null : Number(event.target.value))}
          >
            <option value="">all</option>
            {Array.from({ length: sessions }, (_, index) => (
              <option key={index} value={index + 1}>
                {index + 1}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="mt-3">
        <PoolChart plan={trial.plan} state={trial.state} what={what} session={session} />
      </div>
      <ul className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-[15px]">
        {variants.map((variant) => (
          <li key={variant} className="flex items-center gap-2">
            <svg width={44} height={10} aria-hidden="true">
              <line x1={0} x2={44} y1={5} y2={5} stroke="var(--color-ink)" strokeWidth={2.5} strokeDasharray={dashOf(variants, variant)} />
            </svg>
            {variant}: {variantWords(trial.plan, variant)}
          </li>
        ))}
      </ul>
      <Trend plan={trial.plan} state={trial.state} />
      <OwnMarks plan={trial.plan} state={trial.state} />
      <Rates plan={trial.plan} state={trial.state} />
      <section className="mt-6">
        <h2>Limits</h2>
        <ul className="mt-1">
          {MARKS.map((mark) => (
            <li key={mark.id} className="border-b border-line py-1">
              {units.say(mark.says)}{" "}
              <span className="text-[15px] text-soft">
                {mark.source}
                {mark.memory ? ", from memory" : ""}
              </span>
            </li>
          ))}
        </ul>
        <p className="mt-2 font-semibold">{NO_CERTIFICATE}</p>
      </section>
    </>
  );
}
