"use client";

import type { BatchState } from "@hearth/core";
import { Aside, Empty, Older, Screen } from "@/ui/margin";
import { useNow, useUnits } from "@/ui/units";
import type { Listed, ReadInstrument } from "../batch/lists";
import { BatchRow } from "../batch/row";

/** Setting and curing as one bar to scale in time: poured, set, may be tested, cured as recommended; now as a hairline. */
export function CureBar({ state, now }: { state: BatchState; now: string }) {
  const units = useUnits();
  const { times, pouredAt } = state;
  if (!times || !pouredAt) return null;
  const from = Date.parse(pouredAt);
  const whole = Math.max(1, Date.parse(times.sellFrom) - from);
  const at = (iso: string) => Math.min(100, Math.max(0, ((Date.parse(iso) - from) / whole) * 100));
  const gone = at(now);
  return (
    <div className="mt-2 max-w-[560px]">
      <svg width="100%" height="26" role="img" aria-label={`Cured ${Math.round(gone)} % of the recommended time`}>
        <rect width="100%" height="14" y="6" fill="var(--color-wax)" />
        <rect width={`${gone}%`} height="14" y="6" fill="var(--color-inside)" />
        {[times.setAt, times.testFrom].map((mark) => (
          <line key={mark} x1={`${at(mark)}%`} x2={`${at(mark)}%`} y1="1" y2="25" stroke="var(--color-ink)" strokeWidth="3" />
        ))}
        <rect width="100%" height="14" y="6" fill="none" stroke="var(--color-ink)" strokeWidth="2" />
      </svg>
      <dl className="grid grid-cols-3 gap-3 text-[14px]">
        {[
          { name: "leave unmoved until", at: times.setAt },
          { name: "may be tested", at: times.testFrom },
          { name: "may be sold, once tested", at: times.sellFrom },
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

export const PHASE: Record<BatchState["phase"], string> = { pot: "in the pot", setting: "setting", curing: "curing", ready: "cured", closed: "closed" };

/** What sets and cures. */
export function Rack({ batches, instruments, more }: { batches: Listed[]; instruments: ReadInstrument[]; more: string | null }) {
  const now = useNow(30_000);
  const first = batches.find((one) => one.state.phase !== "setting" && !one.state.lookedAt);
  return (
    <Screen
      title="Rack"
      lead="Poured batches, setting and curing by the clock."
      side={
        <>
          <Aside title="Setting">
            Leave jars unmoved for a day, out of sun and draught. About 10 cm apart, or close but evenly: what matters is the same cooling all round each jar.
          </Aside>
          <Aside title="Testing too early">
            Wax firms up as it cures. A wick that floods the pool on day one may be right, or tunnel, in week two. Times follow the profile; the supplier's
            sheet comes first.
          </Aside>
          <Aside title="Selling">Cured is not tested. Burn tests, labels and your local rules still decide.</Aside>
        </>
      }
    >
      {batches.length === 0 ? (
        <Empty title="Nothing is setting or curing">
          <p>A batch comes here when it is marked poured on the bench. It then says until when to leave it, when it may be tested and when it is cured.</p>
        </Empty>
      ) : (
        <ul>
          {batches.map((one) => (
            <BatchRow
              key={one.id}
              batch={one}
              href={one.state.phase === "setting" ? `/records/${one.id}` : one.state.lookedAt ? `/records/${one.id}` : `/look-over/${one.id}`}
              instruments={instruments}
              first={one === first}
              what={`${PHASE[one.state.phase]}${one.state.lookedAt ? ", looked over" : one.state.phase === "setting" ? "" : ", not looked over yet"}`}
              action={one.state.phase !== "setting" && !one.state.lookedAt ? "Look it over" : "Read its record"}
            >
              <CureBar state={one.state} now={now} />
            </BatchRow>
          ))}
        </ul>
      )}
      <Older path="/rack" after={more}>
        Older batches
      </Older>
    </Screen>
  );
}
