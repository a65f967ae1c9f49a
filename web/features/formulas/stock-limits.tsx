"use client";

import { costOf, drawOfPiece, type FormulaSpec, mostAlone, notToBeFilled, WeighOutError, wouldTake } from "@hearth/core";
import { useMemo } from "react";
import type { Shelf, Stocks } from "@/server/inventory/shelf";
import { useUnits } from "@/ui/units";

const SPARE = 50_000;

/** For each vessel: how many jars of this formula the stock allows, what runs out first, and what one costs. */
export function StockLimits({ spec, shelf, stocks }: { spec: FormulaSpec; shelf: Shelf; stocks: Stocks }) {
  const units = useUnits();
  const rows = useMemo(() => {
    const nameOf = (id: string) =>
      [...shelf.waxes, ...shelf.fragrances, ...shelf.additives, ...shelf.dyes, ...shelf.vessels].find((item) => item.id === id)?.name ?? "";
    return shelf.vessels.flatMap((vessel) => {
      if (notToBeFilled(vessel) || vessel.state !== "for sale") return [];
      let draw: Map<string, number>;
      try {
        draw = drawOfPiece({ spec, vessel, sparePpm: SPARE }, shelf);
      } catch (error) {
        if (error instanceof WeighOutError) return [];
        throw error;
      }
      const kept = [...draw].filter(([id]) => stocks[id]);
      const most = mostAlone(
        kept.map(([, amount]) => amount),
        kept.map(([id]) => Math.max(0, stocks[id]?.onHand ?? 0)),
      );
      const cost = costOf([...draw].flatMap(([id, amount]) => wouldTake(stocks[id]?.left ?? [], amount)));
      const unpriced = [...draw].filter(([id, amount]) => costOf(wouldTake(stocks[id]?.left ?? [], amount)).unknown > 0).map(([id]) => nameOf(id));
      return [{ vessel, most: most ? { n: most.n, by: nameOf(kept[most.limitedBy]?.[0] ?? "") } : null, cost: cost.cost, unpriced }];
    });
  }, [spec, shelf, stocks]);
  if (rows.length === 0) return null;
  return (
    <section className="mt-8" aria-label="What the stock allows">
      <h2 className="border-b-[3px] border-ink pb-1">What the stock allows</h2>
      <table className="w-full text-left">
        <thead className="text-[14px] text-soft">
          <tr>
            <th className="py-1 font-normal">in</th>
            <th className="text-right font-normal">enough for</th>
            <th className="px-4 font-normal">limited by</th>
            <th className="text-right font-normal">unit cost</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ vessel, most, cost, unpriced }) => (
            <tr key={vessel.id} className="border-t border-line align-baseline">
              <th scope="row" className="py-1 font-semibold">
                {vessel.name} <span className="font-normal text-soft">{units.g(vessel.workingFillMg)}</span>
              </th>
              <td className="text-right">
                <span className="figure text-[24px]">{most ? most.n : "–"}</span>
              </td>
              <td className="px-4 text-soft">{most ? most.by : "no stock recorded"}</td>
              <td className="text-right">
                <span className="figure text-[20px]">{cost > 0 ? units.money(cost) : "–"}</span>
                {unpriced.length > 0 ? <span className="block text-[13px] text-soft">without {unpriced.join(", ")}</span> : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-[14px] text-soft">
        With {units.percent(SPARE)} extra, from the oldest lots, each product alone. For several at once, use “What can I make?” on the plan.
      </p>
    </section>
  );
}
