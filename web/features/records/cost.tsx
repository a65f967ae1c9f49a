"use client";

import { costOf, costPerPiece, filledOf } from "@hearth/core";
import type { Batch } from "@/log/use-batch";
import type { TakenByBatch } from "@/server/inventory/shelf";
import { useUnits } from "@/ui/units";

/** What the batch cost by the lots it drew on, and what one jar of each kind comes to. */
export function Cost({ batch, taken }: { batch: Batch; taken: TakenByBatch }) {
  const units = useUnits();
  if (taken.every((use) => use.taken.every((one) => one.cost === null))) return null;
  const { plan, state } = batch;
  /** Bodies and wicks go with their product; everything else was in the pots. */
  const pieces = new Set(plan.products.flatMap((one) => [one.containerId, ...(one.wicks ? [one.wicks.wickId] : [])]));
  // Boxes and labels are the packs', not the pot's.
  const inPot = taken.filter((use) => !pieces.has(use.materialId) && use.kind !== "pack");
  /** What each pot holds of a material, as planned: what was drawn of it is shared by that. */
  const inEach = (id: string) =>
    plan.pots.map((one) =>
      one.components.filter((part) => part.id === id).reduce((sum, part) => sum + (part.count ? part.count.n * (part.count.eachMg ?? 0) : part.mg), 0),
    );
  const potCosts = plan.pots.map(() => 0);
  for (const use of inPot) {
    const of = costOf(use.taken).cost;
    const held = inEach(use.materialId);
    const all = held.reduce((sum, one) => sum + one, 0);
    held.forEach((mg, at) => {
      potCosts[at] = (potCosts[at] ?? 0) + (all > 0 ? (of * mg) / all : of / held.length);
    });
  }
  /** What one piece of a material cost, on average of what was drawn; null where no lot says. */
  const eachOf = (id: string) => {
    const use = taken.find((one) => one.materialId === id);
    const cost = costOf(use?.taken ?? []);
    return use && cost.unknown === 0 && use.amount > 0 ? cost.cost / use.amount : null;
  };
  const rows = plan.products.map((one) => {
    const container = one.container === "mold" ? 0 : eachOf(one.containerId);
    const wick = one.wicks ? eachOf(one.wicks.wickId) : 0;
    const lacks = [container === null ? one.name : "", wick === null ? (one.wicks?.name ?? "") : ""].filter(Boolean);
    return {
      key: one.key,
      name: one.name,
      fillsMg: one.fillsMg ?? [one.fillMg],
      count: Math.max(1, filledOf(plan, state, one.key)),
      pieceCost: (container ?? 0) + (wick ?? 0) * (one.wicks?.count ?? 0),
      lacks,
    };
  });
  const costs = costPerPiece(potCosts, rows);
  const nameOf = (id: string) =>
    plan.pots.flatMap((one) => one.components).find((part) => part.id === id)?.name ??
    plan.products.find((one) => one.containerId === id)?.name ??
    plan.products.find((one) => one.wicks?.wickId === id)?.wicks?.name ??
    "";
  const unknown = [
    ...new Set([...inPot.filter((use) => costOf(use.taken).unknown > 0).map((use) => nameOf(use.materialId)), ...rows.flatMap((row) => row.lacks)]),
  ];
  return (
    <section className="mt-5" aria-label="Cost">
      <h2>What it cost</h2>
      <dl>
        {rows.map((row) => (
          <div key={row.key} className="flex items-baseline justify-between border-b border-line py-1">
            <dt>
              one {row.name}
              {row.lacks.length === 0 ? "" : batch.pouredAt ? `, without ${row.lacks.join(" and ")}` : ", container and wicks not drawn yet"}
            </dt>
            <dd className="figure text-[26px]">{units.money(costs.find((one) => one.key === row.key)?.cost ?? 0)}</dd>
          </div>
        ))}
      </dl>
      <details className="mt-1 text-[15px]">
        <summary className="text-soft">from which lots</summary>
        <ul>
          {taken.flatMap((use) =>
            use.taken.map((one) => (
              <li key={`${use.materialId} ${one.lotId}`} className="flex justify-between border-b border-line py-1">
                <span>
                  {nameOf(use.materialId)}, {one.lotId === null ? "no lot covers it" : one.code ? `lot ${one.code}` : "lot without a code"}:{" "}
                  {pieces.has(use.materialId) ? one.amount : units.g(one.amount)}
                </span>
                <span className="figure">{one.cost === null ? "no cost" : units.money(one.cost)}</span>
              </li>
            )),
          )}
        </ul>
      </details>
      {unknown.length > 0 ? <p className="mt-1 text-[14px] text-soft">Without the cost of {unknown.join(", ")}: no lot with a cost covers all of it.</p> : null}
      <p className="mt-1 text-[14px] text-soft">
        Each pot is shared by what it poured, spare and all; vessel and wicks as drawn. Labels, heat and hands are not in it.
      </p>
    </section>
  );
}
