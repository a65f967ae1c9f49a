import type { OilTest } from "@hearth/core";
import { and, desc, eq, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { oilTests } from "@/data/tables/oil-test";

/** Returns the tests of oils and blends of a workshop, newest first: those with an oil in them where one is named. */
export async function listOilTests(db: Database, workshopId: string, oil?: string): Promise<OilTest[]> {
  const rows = await db
    .select()
    .from(oilTests)
    .where(
      and(
        eq(oilTests.workshopId, workshopId),
        eq(oilTests.deleted, false),
        oil ? sql`${oilTests.parts} @> ${JSON.stringify([{ id: oil }])}::jsonb` : undefined,
      ),
    )
    .orderBy(desc(oilTests.on), desc(oilTests.at));
  return rows.map(({ id, kind, parts, on, verdict, note }) => ({ id, kind, parts, on, verdict, note }));
}
