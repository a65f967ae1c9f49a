"use client";

import { writeDuration } from "@hearth/core";
import type { MoldRow } from "@/server/batches/molds";
import { Link } from "@/ui/address";
import { Aside, Caution, Empty, PageLayout } from "@/ui/side-notes";
import { useNow, useUnits } from "@/ui/units";

/** How long until a step is due, or since when it is; hot where it is later than the process allows. */
function Due({ at, until, now }: { at: string; until: string | null; now: string }) {
  const units = useUnits();
  const left = Math.round((Date.parse(at) - Date.parse(now)) / 1_000);
  const isLate = until !== null && Date.parse(now) > Date.parse(until);
  return (
    <>
      <span className={`figure text-[28px] leading-none ${left <= 0 ? (isLate ? "text-hot" : "text-inside") : ""}`} role="timer">
        {left > 0 ? writeDuration(left) : "now"}
      </span>
      <span className={`block text-[14px] ${isLate ? "font-semibold text-hot" : "text-soft"}`}>
        {isLate ? `▲ overdue since ${units.clock(until)}` : left > 0 ? `at ${units.clock(at)}` : `since ${units.clock(at)}`}
      </span>
    </>
  );
}

/** All molds that are poured, each with its own clock: film, holes, second pour, release. */
export function MoldBoard({ rows }: { rows: MoldRow[] }) {
  const now = useNow(1_000);
  const units = useUnits();
  return (
    <PageLayout
      gloved
      title="Molds"
      lead="Every mold that is poured, by its own clock. The one that is due first stands first."
      actions={
        <Link className="press" href="/bench">
          All pots
        </Link>
      }
      side={
        <>
          <Aside title="The times">They follow the process of each batch. Go on earlier only where the wax itself says so.</Aside>
          <Caution title="Wax under the film is liquid">Do not tip or knock a mold before it is firm. Keep a plate under each.</Caution>
        </>
      }
    >
      {rows.length === 0 ? (
        <Empty title="No mold is poured">
          <p>Once a batch with molds has its first pour, its film, holes, second pour and release stand here with their times.</p>
        </Empty>
      ) : (
        <ul>
          {rows.map((row) => (
            <li key={row.id} className="border-b-2 border-line py-4" aria-label={`Batch ${row.number}`}>
              <div className="flex flex-wrap items-baseline justify-between gap-x-4">
                <h2 className="text-[22px]">
                  <span className="figure">{row.number}</span> {row.title} <span className="text-[16px] font-normal text-soft">{row.molds}</span>
                </h2>
                <Link className={row === rows[0] ? "action-button" : "press"} href={`/bench/${row.id}`} {...(row === rows[0] ? { "data-next-step": "" } : {})}>
                  Go to batch {row.number}
                </Link>
              </div>
              <ol className="mt-2 flex flex-wrap gap-x-6 gap-y-3">
                {row.steps.map((step) => (
                  <li key={step.key} className={`min-w-[120px] border-t-4 pt-1 ${step.done ? "border-inside" : step.isNext ? "border-ink" : "border-line"}`}>
                    <span className={`block ${step.isNext ? "font-bold" : ""}`}>{step.name}</span>
                    {step.done ? (
                      <span className="text-inside">✓ {units.clock(step.at)}</span>
                    ) : step.isNext ? (
                      <Due at={step.at} until={step.until} now={now} />
                    ) : (
                      <span className="text-soft">about {units.clock(step.at)}</span>
                    )}
                  </li>
                ))}
              </ol>
            </li>
          ))}
        </ul>
      )}
    </PageLayout>
  );
}
