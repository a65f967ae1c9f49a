"use client";

import { countWords, overOf } from "@hearth/core";
import type { Batch } from "@/log/use-batch";
import { useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";

/** Too much of something in the pot: noticed at once, with what it does to the load, and an offer to set the rest to it. */
export function TooMuch({ batch, pot }: { batch: Batch; pot: number }) {
  const units = useUnits();
  const over = overOf(batch.plan, batch.state, pot);
  if (!over) return null;
  const { component, given, asked, loadNow, targets } = over;
  const write = (n: number) => (component.count ? countWords(n, component.count.of) : units.onScale(n, component.scale));
  const limit = batch.plan.pots[pot]?.maxLoadPpm ?? null;
  const others = targets.filter((target) => target.componentId !== component.id);
  return (
    <section role="alert" aria-label="Too much" className={notice({ className: "mb-4" })}>
      <p className="font-bold">
        ▲ {write(given)} {component.name} {component.count ? "counted" : "weighed"}, where {write(asked)} {component.count ? "are" : "is"} asked:{" "}
        {units.n((given / asked - 1) * 100, 1)} % more.
      </p>
      {loadNow === null ? null : (
        <p>
          The load is now {units.n(loadNow, 2)} % of the wax
          {limit !== null && loadNow > limit / 10_000 + 0.005
            ? `, above the maximum load of ${units.percent(limit)}: it can sweat oil, clog the wick and soot`
            : ""}
          .
        </p>
      )}
      <p>If you mistyped it, correct the entry below.</p>
      {others.length > 0 ? (
        <button type="button" className="press mt-2" onClick={() => void batch.record({ kind: "rescaled", payload: { pot, targets } })}>
          Rescale the rest to match:{" "}
          {others
            .map((item) => {
              const part = batch.plan.pots[pot]?.components.find((other) => other.id === item.componentId);
              return `${part?.name} ${part ? units.onScale(item.mg, part.scale) : units.g(item.mg)}`;
            })
            .join(", ")}
          , {units.g(over.totalMg)} in all
        </button>
      ) : null}
    </section>
  );
}
