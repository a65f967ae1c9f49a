import { type BatchState, batchState, cureTimes, type Profile } from "@hearth/core";
import { and, asc, count, desc, eq, inArray, isNull, lt, or, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { instruments } from "@/data/tables/shelf";
import { eventsOf } from "./events";

export interface Listed {
  id: string;
  number: number;
  state: BatchState;
}

const PAGE = 25;
type Stage = "pot" | "rack" | "closed";

/** Batches at the given stages with their states, newest first, a page at a time. `after` is the cursor of the page before. */
export async function listBatches(
  db: Database,
  workshopId: string,
  stages: Stage[],
  now: string,
  after?: string,
): Promise<{ batches: Listed[]; more: string | null }> {
  const [at, id] = after?.split("_") ?? [];
  const rows = await db
    .select()
    .from(batches)
    .where(
      and(
        eq(batches.workshopId, workshopId),
        inArray(batches.stage, stages),
        at && id && !Number.isNaN(Date.parse(at)) ? or(lt(batches.startedAt, at), and(eq(batches.startedAt, at), lt(batches.id, id))) : undefined,
      ),
    )
    .orderBy(desc(batches.startedAt), desc(batches.id))
    .limit(PAGE + 1);
  const page = rows.slice(0, PAGE);
  const events = await eventsOf(
    db,
    workshopId,
    page.map((row) => row.id),
  );
  const last = page.at(-1);
  return {
    batches: page.map((row) => ({ id: row.id, number: row.number, state: batchState(events.get(row.id) ?? [], now) })),
    more: rows.length > PAGE && last ? `${new Date(last.startedAt).toISOString()}_${last.id}` : null,
  };
}

/** One batch whole: its row, events and state; null where the workshop has none such. */
export async function readBatch(db: Database, workshopId: string, id: string, now: string) {
  const [row] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, id)));
  if (!row) return null;
  const events = (await eventsOf(db, workshopId, [id])).get(id) ?? [];
  const [formula] = await db
    .select({ id: formulas.id })
    .from(formulaVersions)
    .innerJoin(formulas, and(eq(formulas.workshopId, formulaVersions.workshopId), eq(formulas.id, formulaVersions.formulaId)))
    .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.id, row.formulaVersionId)));
  return { id: row.id, number: row.number, formulaId: formula?.id ?? null, events, state: batchState(events, now) };
}

export type ReadInstrument = {
  id: string;
  name: string;
  kind: "probe" | "infrared" | "glass" | "scale";
  correction: number;
  resolutionUg: number | null;
  capacityMg: number | null;
};

export async function listInstruments(db: Database, workshopId: string): Promise<ReadInstrument[]> {
  return (
    db
      .select({
        id: instruments.id,
        name: instruments.name,
        kind: instruments.kind,
        correction: instruments.correction,
        resolutionUg: instruments.resolutionUg,
        capacityMg: instruments.capacityMg,
      })
      .from(instruments)
      .where(eq(instruments.workshopId, workshopId))
      // A probe in the wax is trusted before a glass, and both before an infrared pistol.
      .orderBy(sql`array_position(array['scale', 'probe', 'glass', 'infrared'], ${instruments.kind})`, asc(instruments.name))
      .limit(200)
  );
}

/** What waits at each station, for the line of stations. */
export async function waitingCounts(db: Database, workshopId: string, now: string): Promise<Record<string, number>> {
  const mine = eq(batches.workshopId, workshopId);
  const [pots] = await db
    .select({ n: count() })
    .from(batches)
    .where(and(mine, eq(batches.stage, "pot")));
  const [rack] = await db
    .select({ n: count() })
    .from(batches)
    .where(and(mine, eq(batches.stage, "rack")));
  const unlooked = await db
    .select({ pouredAt: batches.pouredAt, profile: sql<Profile>`${formulaVersions.spec}->'profile'` })
    .from(batches)
    .innerJoin(formulaVersions, and(eq(formulaVersions.workshopId, batches.workshopId), eq(formulaVersions.id, batches.formulaVersionId)))
    .where(and(mine, eq(batches.stage, "rack"), isNull(batches.lookedAt)))
    .limit(500);
  const due = unlooked.filter((row) => row.pouredAt && Date.parse(cureTimes(row.pouredAt, row.profile).setAt) <= Date.parse(now)).length;
  return { "/bench": pots?.n ?? 0, "/rack": rack?.n ?? 0, "/look-over": due };
}
