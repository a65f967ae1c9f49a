"use server";

import { ok, type Result, reject, testCandlesOf } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { products } from "@/data/tables/product";
import { trialStore } from "@/server/events/trial-store";
import { command } from "@/server/http/command";
import { readProduct } from "@/server/products/products";
import { beginTrialIn, trialWanted } from "./begin-trial";
import { followOption } from "./wick-tests";

/** Begins a trial: pours what is to be made, takes what stands on the rack, and freezes the test candles. */
export async function beginTrial(workshopRef: unknown, input: unknown): Promise<Result<{ id: string; number: number; batches: string[] }>> {
  return command("burn", trialWanted, workshopRef, input, (wanted, context) => beginTrialIn(context.db, context, wanted));
}

const taken = z.object({ trialId: z.uuid(), variant: z.string().min(1).max(6), productId: z.uuid() });

/** Gives a product the wick that a variant was burned with; what was decided on that variant then counts for it. Gives the wick it had. */
export async function takeWick(workshopRef: unknown, input: unknown): Promise<Result<{ wickId: string | null; wicks: number }>> {
  return command("burn", taken, workshopRef, input, async ({ trialId, variant, productId }, { db, workshop }) => {
    const row = await trialStore.readRow(db, workshop.id, trialId, true);
    const product = await readProduct(db, workshop.id, productId);
    if (!row || !product) return reject("This product is no longer in this workshop.");
    const { plan, state } = await trialStore.readState(db, row);
    const wick = testCandlesOf(plan, variant)[0]?.wick;
    if (!wick) return reject("This variant was burned without a wick of the shelf.");
    await db
      .update(products)
      .set({ wickId: wick.wickId, wicks: wick.count, wickTest: "test due", testedAs: null, version: product.version + 1 })
      .where(and(eq(products.workshopId, workshop.id), eq(products.id, productId)));
    await followOption(db, workshop.id, plan, state, variant);
    return ok({ wickId: product.wickId, wicks: product.wicks });
  });
}
