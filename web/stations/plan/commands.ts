"use server";

import { type BatchEvent, batchState, mustNotMix, planBatch, ScaleError } from "@hearth/core";
import { and, eq, inArray, max } from "drizzle-orm";
import { revalidatePath } from "next/cache";
import { v7 } from "uuid";
import { z } from "zod";
import { batchEvents, batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { fragrances, vessels, waxes } from "@/data/tables/shelf";
import { workshops } from "@/data/tables/workshop";
import { eventRow, rowOf } from "../batch/append";
import { here } from "../frame/context";
import { command, done, type Outcome, refused } from "../outcome";

const started = z.object({
  /** Made where the button was pressed: pressing it twice starts one batch. */
  batchId: z.uuid(),
  formulaVersionId: z.uuid(),
  vessels: z
    .array(z.object({ id: z.uuid(), count: z.number().int().min(1).max(100_000) }))
    .min(1, "Choose at least one vessel and its count.")
    .max(200),
  sparePpm: z.number().int().min(0).max(1_000_000),
  resolutionUg: z.number().int().positive().max(100_000_000),
});

/** Starts a batch: works the amounts out again on the server, freezes them with all they rest on, and records the start. */
export async function startBatch(input: unknown): Promise<Outcome<{ id: string; number: number }>> {
  return command(started, input, async (wanted) => {
    const { db, workshop, person, now } = await here();
    const mine = workshop.id;
    const outcome = await db
      .transaction(async (tx): Promise<Outcome<{ id: string; number: number }>> => {
        await tx.select({ id: workshops.id }).from(workshops).where(eq(workshops.id, mine)).for("update");
        const [again] = await tx
          .select({ id: batches.id, number: batches.number })
          .from(batches)
          .where(and(eq(batches.workshopId, mine), eq(batches.id, wanted.batchId)));
        if (again) return done(again);
        const [version] = await tx
          .select({ number: formulaVersions.number, spec: formulaVersions.spec, name: formulas.name })
          .from(formulaVersions)
          .innerJoin(formulas, and(eq(formulas.workshopId, formulaVersions.workshopId), eq(formulas.id, formulaVersions.formulaId)))
          .where(and(eq(formulaVersions.workshopId, mine), eq(formulaVersions.id, wanted.formulaVersionId)));
        if (!version) return refused("This formula is not in this workshop any more. Choose another.");
        const { spec } = version;
        const [wax] = await tx
          .select()
          .from(waxes)
          .where(and(eq(waxes.workshopId, mine), eq(waxes.id, spec.waxes[0]?.id ?? wanted.batchId)));
        if (!wax) return refused("The formula's wax is not on this shelf.");
        const oilId = spec.fragrances[0]?.id;
        const [oil] = oilId
          ? await tx
              .select()
              .from(fragrances)
              .where(and(eq(fragrances.workshopId, mine), eq(fragrances.id, oilId)))
          : [];
        // The shelf may have learnt of a low flash point since the formula was saved.
        const stop = mustNotMix({ wax, fragrance: oil ?? null }, workshop.temperatureUnit);
        if (stop) return refused(stop);
        const rows = await tx
          .select()
          .from(vessels)
          .where(
            and(
              eq(vessels.workshopId, mine),
              inArray(
                vessels.id,
                wanted.vessels.map((one) => one.id),
              ),
            ),
          );
        const chosen = wanted.vessels.flatMap(({ id, count }) => {
          const row = rows.find((one) => one.id === id);
          return row ? [{ ...row, count }] : [];
        });
        if (chosen.length !== wanted.vessels.length) return refused("A vessel is not on this shelf any more. Choose again.");
        const materials = { wax, fragrance: oil ?? null };
        const plan = planBatch(version, materials, chosen, wanted.sparePpm, wanted.resolutionUg);
        const event: BatchEvent = {
          id: v7(),
          kind: "started",
          happenedAt: now,
          arrivedAt: now,
          personId: person?.id ?? null,
          instrumentId: null,
          corrects: null,
          payload: { plan },
        };
        const [top] = await tx
          .select({ top: max(batches.number) })
          .from(batches)
          .where(eq(batches.workshopId, mine));
        const number = (top?.top ?? 0) + 1;
        await tx
          .insert(batches)
          .values({ workshopId: mine, id: wanted.batchId, number, formulaVersionId: wanted.formulaVersionId, ...rowOf(batchState([event], now)) });
        await tx.insert(batchEvents).values(eventRow(mine, wanted.batchId, event));
        return done({ id: wanted.batchId, number });
      })
      .catch((error: unknown) => {
        if (error instanceof ScaleError) return refused(error.message, { [error.field]: [error.message] });
        throw error;
      });
    if (outcome.ok) revalidatePath("/", "layout");
    return outcome;
  });
}
