"use client";

import { type DemandProduct, type PlannedPot, type PlanningSettings, roomIn, writeDuration } from "@hearth/core";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { countPoured, saveDemand } from "@/server/planning/commands";
import { Link, useRouter } from "@/ui/address";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";

/** Returns what of each product is in a pot, several lines of one together. */
export const linesOf = (pot: PlannedPot): { name: string; count: number }[] => {
  const out = new Map<string, { name: string; count: number }>();
  for (const { productId, name, count } of pot.lines) out.set(productId, { name, count: (out.get(productId)?.count ?? 0) + count });
  return [...out.values()];
};

/** The pots by the days on which they are poured. */
export function DemandDays({ pots, products, settings }: { pots: PlannedPot[]; products: DemandProduct[]; settings: PlanningSettings }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const days = [...new Set(pots.map((pot) => pot.day))];
  const poured = async (pot: PlannedPot, back: boolean) => {
    const out = await callAction(countPoured(workshop, { lines: pot.lines.map(({ id, count }) => ({ id, count: back ? -count : count })) }));
    if (!out.ok) return toast(out.message);
    router.refresh();
    if (!back) toast(`${pot.formulaName}: ${pot.jars} poured, removed from demand.`, { action: { label: "Undo", onClick: () => void poured(pot, true) } });
  };
  const addStock = async (productId: string, count: number) => {
    const id = v7();
    const out = await callAction(saveDemand(workshop, { id, productId, count, wantedOn: null, note: "completes the pot" }));
    if (!out.ok) return toast(out.message);
    router.refresh();
  };
  return (
    <section className="mt-8" aria-label="Pots by day">
      <h2 className="border-b-[3px] border-ink pb-1">Pots by day</h2>
      {days.map((day) => {
        const dayPots = pots.filter((pot) => pot.day === day);
        const hands = dayPots.reduce((sum, pot) => sum + pot.handsMinutes, 0);
        return (
          <div key={day ?? "none"} className="grid gap-x-6 border-b border-line py-3 sm:grid-cols-[150px_minmax(0,1fr)]">
            <div>
              <h3 className="figure text-[24px] leading-tight">{day ? units.onDay(day) : "no day"}</h3>
              <p className="text-[14px] text-soft">labor {writeDuration(Math.round(hands) * 60)}</p>
              {day ? (
                <p className="unprinted mt-1 flex flex-wrap gap-2">
                  <Link className="press" href={`/plan/day?on=${day}`}>
                    Schedule<span className="sr-only"> of {units.onDay(day)}</span>
                  </Link>
                </p>
              ) : (
                <p className="font-semibold text-hot">▲ no free day in range</p>
              )}
            </div>
            <ul>
              {dayPots.map((pot) => {
                const room = roomIn(pot, pots, products, settings);
                return (
                  <li key={pot.key} className="flex flex-wrap items-start justify-between gap-x-4 gap-y-1 py-1">
                    <div className="min-w-0 flex-1 basis-[240px]">
                      <strong>{pot.formulaName}</strong> <span className="figure text-[20px]">{units.bulk(pot.totalMg)}</span>
                      <span className="block text-[15px]">
                        {linesOf(pot)
                          .map((line) => `${line.count} × ${line.name}`)
                          .join(", ")}
                      </span>
                      <span className="block text-[14px]">
                        {pot.is === "stock" ? <span className="text-soft">stock</span> : null}
                        {pot.is === "ready" ? (
                          <span className="text-soft">
                            <span className="font-semibold text-inside">✓</span> wanted {units.onDay(pot.wantedOn ?? "")}
                            {pot.latest.recommended ? `; at the latest ${units.onDay(pot.latest.recommended)}` : ""}
                            {pot.latest.minimum ? `, with the minimum cure ${units.onDay(pot.latest.minimum)}` : ""}
                          </span>
                        ) : null}
                        {pot.is === "minimum" || pot.is === "late" ? (
                          <span className="font-semibold text-hot">
                            ▲ wanted {units.onDay(pot.wantedOn ?? "")}: {pot.short} {pot.short === 1 ? "day" : "days"}{" "}
                            {pot.is === "minimum" ? "short of the recommended cure" : "late even with the minimum cure"}
                          </span>
                        ) : null}
                      </span>
                      {room.length > 0 ? (
                        <span className="unprinted block text-[14px] text-soft">
                          Room for{" "}
                          {room.map((item, index) => (
                            <span key={item.productId}>
                              {index > 0 ? " and " : ""}
                              <button
                                type="button"
                                className="underline decoration-dotted underline-offset-4"
                                onClick={() => void addStock(item.productId, item.count)}
                              >
                                {item.count} × {item.name}
                              </button>
                            </span>
                          ))}{" "}
                          more from the same pot.
                        </span>
                      ) : null}
                    </div>
                    <button type="button" className="press unprinted" onClick={() => void poured(pot, false)} aria-label={`${pot.formulaName}: poured`}>
                      Poured
                    </button>
                  </li>
                );
              })}
            </ul>
          </div>
        );
      })}
    </section>
  );
}
