"use client";

import { type BatchState, costOf, costPerJar, isCounted } from "@hearth/core";
import { useUnits } from "@/ui/units";
import type { TakenByBatch } from "../shelf/read";

/** What the batch cost by the lots it drew on, and what one jar of each kind comes to. */
export function Cost({ state, taken }: { state: BatchState; taken: TakenByBatch }) {
  const units = useUnits();
  if (taken.every((use) => use.taken.every((one) => one.cost === null))) return null;
  const { plan } = state;
  const isVessel = (id: string) => plan.vessels.some((one) => one.vesselId === id);
  const inPot = taken.filter((use) => !isVessel(use.materialId));
  const pot = costOf(inPot.flatMap((use) => use.taken));
  const vessels = plan.vessels.map((one) => {
    const own = costOf(taken.find((use) => use.materialId === one.vesselId)?.taken ?? []);
    return { ...one, vesselCost: own.cost / one.count, known: own.unknown === 0 && own.cost > 0 };
  });
  const jars = costPerJar(pot.cost, vessels);
  const unknown = inPot.filter((use) => costOf(use.taken).unknown > 0).map((use) => plan.components.find((part) => part.id === use.materialId)?.name ?? "");
  const nameOf = (id: string) => plan.components.find((part) => part.id === id)?.name ?? plan.vessels.find((one) => one.vesselId === id)?.name ?? "";
  const counted = (id: string) => isVessel(id) && isCounted("vessel");
  return (
    <section className="mt-5" aria-label="Cost">
      <h2>What it cost</h2>
      <dl>
        {vessels.map((vessel) => (
          <div key={vessel.vesselId} className="flex items-baseline justify-between border-b border-line py-1">
            <dt>
              one {vessel.name}
              {vessel.known ? "" : state.pouredAt ? ", vessel without a cost" : ", vessel not drawn yet"}
            </dt>
            <dd className="figure text-[26px]">{units.money(jars.find((one) => one.vesselId === vessel.vesselId)?.cost ?? 0)}</dd>
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
                  {counted(use.materialId) ? one.amount : units.g(one.amount)}
                </span>
                <span className="figure">{one.cost === null ? "no cost" : units.money(one.cost)}</span>
              </li>
            )),
          )}
        </ul>
      </details>
      {unknown.length > 0 ? <p className="mt-1 text-[14px] text-soft">Without the cost of {unknown.join(", ")}: no lot with a cost covers all of it.</p> : null}
      <p className="mt-1 text-[14px] text-soft">Shared by weight poured, spare and all. Wicks, labels, heat and hands are not in it.</p>
    </section>
  );
}
