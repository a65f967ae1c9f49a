"use server";

import { testersOf, WeighOutError } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { products } from "@/data/tables/product";
import { beginTrialIn, trialWanted } from "@/server/begin-trial";
import { TRIALS } from "@/server/keep-trial";
import { command, done, type Outcome, refused } from "@/server/outcome";
import { readProduct } from "@/server/products";
import { followOption } from "@/server/wick-tests";

/** Begins a trial: pours what is to be made, takes what stands on the rack, and freezes the testers. */
export async function beginTrial(place: unknown, input: unknown): Promise<Outcome<{ id: string; number: number; batches: string[] }>> {
  return command("burn", trialWanted, place, input, async (wanted, context) => {
    const outcome = await beginTrialIn(context, wanted).catch((error: unknown) => {
      if (error instanceof WeighOutError) return refused(error.message, { [error.field]: [error.message] });
      throw error;
    });
    return outcome;
  });
}

const taken = z.object({ trialId: z.uuid(), option: z.string().min(1).max(6), productId: z.uuid() });

/** Gives a product the wick that an option was burned with; what was decided on that option then counts for it. Gives the wick it had. */
export async function takeWick(place: unknown, input: unknown): Promise<Outcome<{ wickId: string | null; wicks: number }>> {
  return command("burn", taken, place, input, async ({ trialId, option, productId }, { db, workshop }) => {
    return db.transaction(async (tx): Promise<Outcome<{ wickId: string | null; wicks: number }>> => {
      const row = await TRIALS.row(tx, workshop.id, trialId, true);
      const product = await readProduct(tx, workshop.id, productId);
      if (!row || !product) return refused("This product is not in this workshop any more.");
      const { plan, facts } = await TRIALS.kept(tx, row);
      const wick = testersOf(plan, option)[0]?.wick;
      if (!wick) return refused("This option was burned without a wick of the shelf.");
      await tx
        .update(products)
        .set({ wickId: wick.wickId, wicks: wick.count, wickTest: "test due", testedAs: null, version: product.version + 1 })
        .where(and(eq(products.workshopId, workshop.id), eq(products.id, productId)));
      await followOption(tx, workshop.id, plan, facts, option);
      return done({ wickId: product.wickId, wicks: product.wicks });
    });
  });
}
