"use client";

import { containerLines, costOf, costPerPiece, filledOf, passCostsOn } from "@hearth/core";
import type { Batch } from "@/log/use-batch";
import type { TakenByBatch } from "@/server/inventory/shelf";
import { useUnits } from "@/ui/units";

/** What the batch cost by the lots it drew on, and what one jar of each kind comes to. */
export function Cost({ batch, taken }: { batch: Batch; taken: TakenByBatch }) {
  const units = useUnits();
  if (taken.every((use) => use.taken.every((item) => item.cost === null))) return null;
  const { plan, state } = batch;
  /** Containers, wicks and embeds go with their product; everything else was in the pots. */
  const lines = plan.products.flatMap((product) => containerLines(product, 1));
  const pieces = new Set(lines.map((line) => line.materialId));
  // Boxes and labels are the packs', not the pot's.
  const inPot = taken.filter((use) => !pieces.has(use.materialId) && use.kind !== "pack");
  /** Returns what each pot holds of a material, as planned: what was drawn of it is shared by that. */
  const inEach = (id: string) =>
    plan.pots.map((pot) =>
      pot.components.filter((part) => part.id === id).reduce((sum, part) => sum + (part.count ? part.count.n * (part.count.eachMg ?? 0) : part.mg), 0),
    );
  const potCosts = plan.pots.map(() => 0);
  for (const use of inPot) {
    const of = costOf(use.taken).cost;
    const held = inEach(use.materialId);
    const all = held.reduce((sum, value) => sum + value, 0);
    held.forEach((mg, index) => {
      potCosts[index] = (potCosts[index] ?? 0) + (all > 0 ? (of * mg) / all : of / held.length);
    });
  }
  /** Returns what one piece of a material cost, on average of what was drawn; null if no lot says. */
  const eachOf = (id: string) => {
    const use = taken.find((item) => item.materialId === id);
    const cost = costOf(use?.taken ?? []);
    return use && cost.unknown === 0 && use.amount > 0 ? cost.cost / use.amount : null;
  };
  const rows = plan.products.map((product) => {
    const container = product.container === "mold" ? 0 : eachOf(product.containerId);
    const wick = product.wicks ? eachOf(product.wicks.wickId) : 0;
    const laidIn = (product.embeds ?? []).map((embed) => ({ ...embed, each: eachOf(embed.embedId) }));
    const lacks = [
      container === null ? product.name : "",
      wick === null ? (product.wicks?.name ?? "") : "",
      ...laidIn.map((embed) => (embed.each === null ? embed.name : "")),
    ].filter(Boolean);
    return {
      key: product.key,
      name: product.name,
      fillsMg: product.fillsMg ?? [product.fillMg],
      count: Math.max(1, filledOf(plan, state, product.key)),
      pieceCost: (container ?? 0) + (wick ?? 0) * (product.wicks?.count ?? 0) + laidIn.reduce((sum, embed) => sum + (embed.each ?? 0) * embed.count, 0),
      lacks,
    };
  });
  const costs = costPerPiece(passCostsOn(plan, potCosts), rows);
  const nameOf = (id: string) =>
    plan.pots.flatMap((pot) => pot.components).find((part) => part.id === id)?.name ?? lines.find((line) => line.materialId === id)?.name ?? "";
  const unknown = [
    ...new Set([...inPot.filter((use) => costOf(use.taken).unknown > 0).map((use) => nameOf(use.materialId)), ...rows.flatMap((row) => row.lacks)]),
  ];
  return (
    <section className="mt-5" aria-label="Cost">
      <h2>Cost</h2>
      <dl>
        {rows.map((row) => (
          <div key={row.key} className="flex items-baseline justify-between border-b border-line py-1">
            <dt>
              one {row.name}
              {row.lacks.length === 0 ? "" : batch.pouredAt ? `, without ${row.lacks.join(" and ")}` : ", container and wicks not drawn yet"}
            </dt>
            <dd className="figure text-[26px]">{units.money(costs.find((cost) => cost.key === row.key)?.cost ?? 0)}</dd>
          </div>
        ))}
      </dl>
      <details className="mt-1 text-[15px]">
        <summary className="text-soft">lots used</summary>
        <ul>
          {taken.flatMap((use) =>
            use.taken.map((item) => (
              <li key={`${use.materialId} ${item.lotId}`} className="flex justify-between border-b border-line py-1">
                <span>
                  {nameOf(use.materialId)}, {item.lotId === null ? "no matching lot" : item.code ? `lot ${item.code}` : "lot without a code"}:{" "}
                  {pieces.has(use.materialId) ? item.amount : units.g(item.amount)}
                </span>
                <span className="figure">{item.cost === null ? "no cost" : units.money(item.cost)}</span>
              </li>
            )),
          )}
        </ul>
      </details>
      {unknown.length > 0 ? <p className="mt-1 text-[14px] text-soft">Without the cost of {unknown.join(", ")}: no lots with a cost for all of it.</p> : null}
      <p className="mt-1 text-[14px] text-soft">
        Each pot's cost is split by the weight poured, extra included, plus vessels and wicks. Labels, energy and labor are not included.
      </p>
    </section>
  );
}
