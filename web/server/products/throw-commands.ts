"use server";

import { ok, PROTOCOLS, type Result, reject, type Varied } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { products } from "@/data/tables/product";
import { beginTrialIn, type TrialWanted, trialWanted } from "@/server/burn/begin-trial";
import { command } from "@/server/http/command";
import { type RungChoice, throwLadder } from "./throw-ladder";

const pourInput = z.object({ trialId: z.uuid(), productId: z.uuid(), choice: z.string().min(1).max(60) });

/** What varies in a trial of one rung. */
const variedBy = (change: RungChoice["change"]): Varied =>
  "loadPpm" in change ? "load" : "waxId" in change ? "wax" : "fragranceId" in change ? "scent" : "containerId" in change ? "vessel" : "wick size";

/** Pours the next rung as a trial: two of the candle as it is, and two with the one change. */
export async function pourRung(workshopRef: unknown, input: unknown): Promise<Result<{ id: string; number: number; batches: string[] }>> {
  return command("burn", pourInput, workshopRef, input, async ({ trialId, productId, choice }, context) => {
    const ladder = await throwLadder(context.db, context.workshop, productId);
    if (!ladder) return reject("This product is no longer in this workshop.");
    const { product, next, formulaVersionId } = ladder;
    const chosen = ladder.choices.find((item) => item.value === choice);
    if (!next || !chosen) return reject("This rung is no longer the next one. Look at what was tried since.", { choice: ["Choose again."] });
    if (!product.wickId) return reject("A candle without a wick has no hot throw.");
    const { change } = chosen;
    const [protocol] = PROTOCOLS;
    if (!protocol) return reject("There is no protocol.");
    const { id: _id, says: _says, ...burned } = protocol;
    const asItIs = {
      from: "make" as const,
      formulaVersionId,
      container: product.container,
      containerId: product.containerId,
      wick: { id: product.wickId, count: product.wicks },
      testCandles: 2,
      half: false,
      change: {},
    };
    const other = {
      ...asItIs,
      ...("containerId" in change ? { container: "vessel" as const, containerId: change.containerId, wick: { id: change.wickId, count: 1 } } : {}),
      ...("wickId" in change && !("containerId" in change) ? { wick: { id: change.wickId, count: product.wicks } } : {}),
      change: "loadPpm" in change || "waxId" in change || "fragranceId" in change ? change : {},
    };
    const wanted: z.input<typeof trialWanted> = {
      trialId,
      name: `${product.name}, stronger: ${chosen.label}`.slice(0, 120),
      varies: variedBy(change),
      protocol: burned,
      productId: product.id,
      after: null,
      variants: [asItIs, other] as TrialWanted["variants"],
    };
    const parsed = trialWanted.safeParse(wanted);
    return parsed.success ? beginTrialIn(context.db, context, parsed.data) : reject(parsed.error.issues[0]?.message ?? "This rung cannot be poured.");
  });
}

const roomsInput = z.object({ productId: z.uuid(), rooms: z.array(z.string().trim().min(1).max(60)).max(8), isTold: z.boolean() });

/** Keeps which rooms a product's scent fills, and whether its buyers are told. */
export async function saveFilledRooms(workshopRef: unknown, input: unknown): Promise<Result<null>> {
  return command("products", roomsInput, workshopRef, input, async ({ productId, rooms, isTold }, { db, workshop }) => {
    const saved = await db
      .update(products)
      .set({ fillsRooms: { rooms: [...new Set(rooms)], isTold } })
      .where(and(eq(products.workshopId, workshop.id), eq(products.id, productId)))
      .returning({ id: products.id });
    return saved.length > 0 ? ok(null) : reject("This product is no longer in this workshop.");
  });
}
