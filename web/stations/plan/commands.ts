"use server";

import { type BatchEvent, batchState, fillPart, materialsOf, notToBeFilled, planBatch, ScaleError, stopOf } from "@hearth/core";
import { and, eq, inArray, max } from "drizzle-orm";
import { revalidatePath } from "next/cache";
import { v7 } from "uuid";
import { z } from "zod";
import { batchEvents, batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { vessels } from "@/data/tables/shelf";
import { workshops } from "@/data/tables/workshop";
import { eventRow, rowOf } from "../batch/append";
import { here } from "../frame/context";
import { command, done, type Outcome, refused } from "../outcome";
import { readMaterials } from "../shelf/read";

const started = z.object({
  /** Made where the button was pressed: pressing it twice starts one batch. */
  batchId: z.uuid(),
  formulaVersionId: z.uuid(),
  vessels: z
    .array(z.object({ id: z.uuid(), count: z.number().int().min(1).max(100_000), part: fillPart.nullable().default(null) }))
    .min(1, "Choose at least one vessel and its count.")
    .max(200),
  sparePpm: z.number().int().min(0).max(1_000_000),
  spareMg: z.number().int().min(0).max(100_000_000).default(0),
  resolutionUg: z.number().int().positive().max(100_000_000),
  /** A weight of wax, or a total, in place of the vessels' fills. */
  start: z
    .union([z.object({ waxMg: z.number().int().positive() }), z.object({ totalMg: z.number().int().positive() })])
    .nullable()
    .default(null),
  pitcherMg: z.number().int().min(1_000, "A pitcher holds at least 1 g.").nullable().default(null),
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
        const shelf = await readMaterials(tx, mine);
        const { waxes, fragrances, additives, dyes } = materialsOf(spec, shelf);
        if (waxes.length === 0) return refused("The formula's wax is not on this shelf.");
        if (fragrances.length + additives.length + dyes.length !== spec.fragrances.length + (spec.additives ?? []).length + (spec.dyes ?? []).length)
          return refused("Something the formula names is not on this shelf any more. Open the formula and choose again.");
        // The shelf may have learnt of a low flash point since the formula was saved.
        const stop = stopOf(spec, shelf, workshop.temperatureUnit);
        if (stop) return refused(stop.message);
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
        const chosen = wanted.vessels.flatMap(({ id, count, part }) => {
          const row = rows.find((one) => one.id === id);
          return row ? [{ ...row, count, part }] : [];
        });
        if (chosen.length !== wanted.vessels.length) return refused("A vessel is not on this shelf any more. Choose again.");
        const unfit = chosen.map(notToBeFilled).find((why) => why !== null);
        if (unfit) return refused(unfit, { vessels: [unfit] });
        const { sparePpm, spareMg, resolutionUg, start, pitcherMg } = wanted;
        const plan = planBatch(version, shelf, { vessels: chosen, sparePpm, spareMg, resolutionUg, start: start ?? undefined, pitcherMg });
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
