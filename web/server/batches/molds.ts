import { type MoldStep, moldClock, namedLines, secondPourShare, titleOf } from "@hearth/core";
import { and, desc, eq, inArray, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { outcomes } from "@/data/tables/finding";
import { readBatchState } from "@/server/events/read-events";

/** The molds of one batch, with the clock of what is done with them. */
export interface MoldRow {
  id: string;
  number: number;
  title: string;
  molds: string;
  steps: MoldStep[];
}

/** Workshops have a handful of molds: more batches than this are not worked at once. */
const MAX_AT_ONCE = 60;
const fillsMold = sql`${batches.plan} @> ${JSON.stringify({ products: [{ container: "mold" }] })}::jsonb`;

/** Returns the batches with molds that are poured and not finished yet, the one whose next step is due first before the others. */
export async function moldBoard(db: Database, workshopId: string, now: string): Promise<MoldRow[]> {
  const rows = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), inArray(batches.stage, ["pot", "rack"]), fillsMold))
    .orderBy(desc(batches.startedAt))
    .limit(MAX_AT_ONCE);
  const board = await Promise.all(
    rows.map(async (row): Promise<MoldRow> => {
      const { plan, state } = await readBatchState(db, row);
      const molds = namedLines(plan.products.filter((product) => product.container === "mold"))
        .map((line) => `${line.count} × ${line.name}`)
        .join(", ");
      return { id: row.id, number: row.number, title: titleOf(plan), molds, steps: moldClock(plan, state, now) };
    }),
  );
  const due = (row: MoldRow) => Date.parse(row.steps.find((step) => !step.done)?.at ?? "");
  return board.filter((row) => row.steps.some((step) => !step.done)).sort((a, b) => due(a) - due(b));
}

/** From this many second pours on, what they took is offered. */
const MIN_POURS = 2;
/** As many second pours of a mold are learned from, the newest. */
const LEARNED_FROM = 12;

/** What second pours of a mold took of the fill, in millionths: the middle one, the least and the most. */
export interface LearnedReserve {
  containerId: string;
  median: number;
  least: number;
  most: number;
  pours: number;
}

/** Returns what the second pours of these molds took before, for those with enough that were weighed. */
export async function learnedReserves(db: Database, workshopId: string, moldIds: readonly string[]): Promise<LearnedReserve[]> {
  const learned = await Promise.all(
    moldIds.map(async (containerId): Promise<LearnedReserve | null> => {
      // A product of a batch is named by its container, so that the newest pours of a mold are found by an index and no plan is read.
      const rows = (
        await db
          .select({ batch: batches })
          .from(outcomes)
          .innerJoin(batches, and(eq(batches.workshopId, outcomes.workshopId), eq(batches.id, outcomes.batchId)))
          .where(and(eq(outcomes.workshopId, workshopId), eq(outcomes.product, containerId)))
          .orderBy(desc(outcomes.pouredAt))
          .limit(LEARNED_FROM)
      ).map((row) => row.batch);
      const states = await Promise.all(rows.map((row) => readBatchState(db, row)));
      const shares = states.flatMap(({ plan, state }) => secondPourShare(plan, state, containerId) ?? []).sort((a, b) => a - b);
      if (shares.length < MIN_POURS) return null;
      const median = shares[Math.floor(shares.length / 2)] ?? 0;
      return { containerId, median, least: shares[0] ?? 0, most: shares.at(-1) ?? 0, pours: shares.length };
    }),
  );
  return learned.filter((item) => item !== null);
}
