"use client";

import { type BatchPlan, type CureTimes, cureClocks, type Phase } from "@hearth/core";
import { useUnits } from "./units";

export const PHASE: Record<Phase, string> = {
  pot: "in the pot",
  setting: "setting",
  curing: "curing",
  ready: "cured",
  closed: "closed",
  abandoned: "abandoned",
};

/** The cure of a poured batch: a bar for jars and one for molds, where they differ. */
export function CureBars({ plan, pouredAt, now }: { plan: BatchPlan; pouredAt: string | null; now: string }) {
  if (!pouredAt) return null;
  return cureClocks(plan, pouredAt).map(({ of, times }) => (
    <div key={of ?? "all"} className="mt-2">
      {of ? <h3 className="text-[15px] font-semibold">In {of}</h3> : null}
      <CureBar times={times} pouredAt={pouredAt} now={now} />
    </div>
  ));
}

/** Setting and curing as one bar to scale in time: poured, set, may be tested, cured as recommended; now as a hairline. */
export function CureBar({ times, pouredAt, now }: { times: CureTimes | null; pouredAt: string | null; now: string }) {
  const units = useUnits();
  if (!times || !pouredAt) return null;
  const from = Date.parse(pouredAt);
  const whole = Math.max(1, Date.parse(times.sellFrom) - from);
  const at = (iso: string) => Math.min(100, Math.max(0, ((Date.parse(iso) - from) / whole) * 100));
  const elapsed = at(now);
  return (
    <div className="mt-2 max-w-[560px]">
      <svg width="100%" height="26" role="img" aria-label={`Cured ${Math.round(elapsed)} % of the recommended time`}>
        <rect width="100%" height="14" y="6" fill="var(--color-wax)" />
        <rect width={`${elapsed}%`} height="14" y="6" fill="var(--color-inside)" />
        {[times.setAt, times.testFrom].map((mark) => (
          <line key={mark} x1={`${at(mark)}%`} x2={`${at(mark)}%`} y1="1" y2="25" stroke="var(--color-ink)" strokeWidth="3" />
        ))}
        <rect width="100%" height="14" y="6" fill="none" stroke="var(--color-ink)" strokeWidth="2" />
      </svg>
      <dl className="grid grid-cols-3 gap-3 text-[14px]">
        {[
          { name: "do not move until", at: times.setAt },
          { name: "ready to burn-test", at: times.testFrom },
          { name: "fully cured: may be sold once tested", at: times.sellFrom },
        ].map((row) => (
          <div key={row.name}>
            <dt className="text-soft">{row.name}</dt>
            <dd>
              <span className="figure text-[18px]">{units.dayClock(row.at)}</span>
              <span className={`block ${Date.parse(row.at) <= Date.parse(now) ? "font-semibold text-inside" : "text-soft"}`}>
                {Date.parse(row.at) <= Date.parse(now) ? "✓ reached" : units.away(row.at, now)}
              </span>
            </dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
