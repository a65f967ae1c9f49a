import { CAUSES, type Cause, type CustomCause, customCause, DEFAULT_GRADES, type GradingRules, gradingRulesSchema } from "@hearth/core";
import { and, asc, eq } from "drizzle-orm";
import type { Database } from "@/data/client";
import { customCauses, gradingRules } from "@/data/tables/finding";

/** By which rules a workshop grades: its own, or the usual ones. */
export async function readGradingRules(db: Database, workshopId: string): Promise<{ rules: GradingRules; version: number }> {
  const [row] = await db.select().from(gradingRules).where(eq(gradingRules.workshopId, workshopId));
  const read = gradingRulesSchema.safeParse(row?.rules);
  return { rules: read.success ? read.data : DEFAULT_GRADES, version: row?.version ?? 0 };
}

/** Returns causes that a workshop added, oldest first. */
export async function readCustomCauses(db: Database, workshopId: string): Promise<CustomCause[]> {
  const rows = await db
    .select({ cause: customCauses.cause })
    .from(customCauses)
    .where(and(eq(customCauses.workshopId, workshopId), eq(customCauses.deleted, false)))
    .orderBy(asc(customCauses.id));
  return rows.flatMap(({ cause }) => {
    const read = customCause.safeParse(cause);
    return read.success ? [read.data] : [];
  });
}

/** The known causes of flaws and the workshop's own, as they are named. */
export async function causeWords(db: Database, workshopId: string): Promise<Pick<Cause, "defect" | "words">[]> {
  return [...CAUSES, ...(await readCustomCauses(db, workshopId))].map(({ defect, words }) => ({ defect, words }));
}
