"use client";

import { type DayWork, type Process, type Readiness, writeDuration } from "@hearth/core";
import { memo } from "react";
import { Link } from "@/ui/address";
import { useUnits } from "@/ui/units";
import { useIncrementalList } from "@/ui/use-incremental-list";
import type { DayProduct } from "./day-product";

interface PotsProps {
  work: DayWork[];
  ready: (key: string, process: Process) => Readiness;
  products: DayProduct[];
  /** How many were abandoned. */
  gone: number;
  onGone: (key: string) => void;
}

/** So many pots are shown at first. */
const MAX_SHOWN = 20;

/** When a pot may be sold, and whether that is in time. */
function Ready({ of }: { of: Readiness }) {
  const units = useUnits();
  return (
    <div className="text-right text-[15px]">
      <div>
        {of.is === "ready" ? <span className="font-semibold text-inside">✓ </span> : null}
        fully cured: may be sold once tested, from <strong>{units.day(of.sellFrom)}</strong>
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

/** What goes into each pot, when it may be sold, and what is done where one is lost. */
export const DayPots = memo(function DayPots({ work, ready, products, gone, onGone }: PotsProps) {
  const units = useUnits();
  const { shown, more, showAll } = useIncrementalList(work.length, MAX_SHOWN);
  const start = ({ pot }: DayWork) => {
    const fill = pot.lines.flatMap((line) => {
      const container = products.find((product) => product.id === line.productId)?.containerId;
      return container ? [`${container}:${line.count}`] : [];
    });
    return `/plan?formula=${pot.formulaId}&fill=${fill.join(",")}`;
  };
  return (
    <section aria-label="What goes into each pot">
      <h2 className="mt-6 border-b-[3px] border-ink pb-1">What goes into each pot</h2>
      <ul>
        {work.slice(0, shown).map((work) => {
          const { pot, setMinutes } = work;
          return (
            <li key={pot.key} className="flex flex-wrap items-start justify-between gap-x-4 gap-y-1 border-b border-line py-2">
              <div className="min-w-0 flex-1 basis-[260px]">
                pot {pot.number}, <strong>{pot.formulaName}</strong> <span className="figure text-[18px]">{units.bulk(pot.totalMg)}</span>
                <span className="block text-[15px]">{pot.lines.map((line) => `${line.count} × ${line.name}`).join(", ")}</span>
                {setMinutes > 0 ? <span className="block text-[14px] text-soft">left unmoved for {writeDuration(setMinutes * 60)}</span> : null}
                <span className="unprinted mt-1 flex flex-wrap gap-2">
                  <Link className="press" href={start(work)}>
                    Start this batch
                  </Link>
                  <button type="button" className="press" onClick={() => onGone(pot.key)}>
                    Pot {pot.number} is lost: plan the rest again
                  </button>
                </span>
              </div>
              <Ready of={ready(pot.key, pot.process)} />
            </li>
          );
        })}
      </ul>
      {more > 0 ? (
        <button type="button" className="press unprinted mt-3" onClick={showAll}>
          Show {more} more
        </button>
      ) : null}
      {gone > 0 ? (
        <p className="mt-2 text-soft">
          {gone} {gone === 1 ? "pot was" : "pots were"} abandoned. Do not pour scorched wax: keep what is left in the pitcher apart, and label it.
        </p>
      ) : null}
    </section>
  );
});
