import { type BatchPlan, type BatchState, dayAt } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import type { Transaction } from "@/data/client";
import { keptNames } from "@/data/stock-uses";
import { lots } from "@/data/tables/stock";
import { workshops } from "@/data/tables/workshop";

/**
 * Puts wax that was scraped up on the shelf, as a lot of its own of the pot's main wax that cost nothing; where the entry that says so is deleted, the
 * lot goes with it. The lot carries the entry's id.
 */
export async function writeRecoveredLots(
  tx: Transaction,
  workshopId: string,
  number: number,
  plan: BatchPlan,
  state: BatchState,
  before: BatchState,
): Promise<void> {
  const backOf = (batchState: BatchState) => batchState.moved.filter((item) => item.backMg !== undefined && item.eventId !== undefined);
  const [was, is] = [backOf(before), backOf(state)];
  if (JSON.stringify(was) === JSON.stringify(is)) return;
  const [workshop] = await tx.select({ zone: workshops.timeZone }).from(workshops).where(eq(workshops.id, workshopId));
  const lotOf = (id: string) => and(eq(lots.workshopId, workshopId), eq(lots.id, id));
  for (const item of is) {
    const [wax] = (plan.pots[item.pot]?.components ?? []).filter((part) => part.kind === "wax").sort((a, b) => b.mg - a.mg);
    if (!wax) continue;
    const isScented = Object.keys(state.lost).some(
      (key) => key.startsWith(`${item.pot}:`) && plan.pots[item.pot]?.components.some((part) => part.kind === "fragrance" && key.endsWith(part.id)),
    );
    const lot = {
      kind: "wax" as const,
      materialId: (await keptNames(tx, workshopId, [wax.id]))(wax.id),
      code: `scraped up, batch ${number}${isScented ? ", scented" : ""}`,
      amount: item.backMg ?? 0,
      cost: 0,
      receivedOn: dayAt(item.at, workshop?.zone ?? "UTC"),
      receivedAt: item.at,
      withdrawn: false,
    };
    await tx
      .insert(lots)
      .values({ ...lot, workshopId, id: item.eventId })
      .onConflictDoUpdate({ target: [lots.workshopId, lots.id], set: lot });
  }
  for (const wa of was) if (!is.some((other) => other.eventId === wa.eventId)) await tx.update(lots).set({ withdrawn: true }).where(lotOf(wa.eventId));
}
