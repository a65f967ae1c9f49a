import { CAUSES, type Cause, type GradeRules, gradeRules, type OwnCause, ownCause, USUAL_GRADES } from "@hearth/core";
import { and, asc, eq } from "drizzle-orm";
import type { Database } from "@/data/client";
import { grading, ownCauses } from "@/data/tables/finding";

/** By which rules a workshop grades: its own, or the usual ones. */
export async function readGrades(db: Database, workshopId: string): Promise<{ rules: GradeRules; version: number }> {
  const [row] = await db.select().from(grading).where(eq(grading.workshopId, workshopId));
  const read = gradeRules.safeParse(row?.rules);
  return { rules: read.success ? read.data : USUAL_GRADES, version: row?.version ?? 0 };
}

/** Causes that a workshop added, oldest first. */
export async function readOwnCauses(db: Database, workshopId: string): Promise<OwnCause[]> {
  const rows = await db
    .select({ cause: ownCauses.cause })
    .from(ownCauses)
    .where(and(eq(ownCauses.workshopId, workshopId), eq(ownCauses.gone, false)))
    .orderBy(asc(ownCauses.id))
    .limit(200);
  return rows.flatMap(({ cause }) => {
    const read = ownCause.safeParse(cause);
    return read.success ? [read.data] : [];
  });
}

/** The known causes of flaws and the workshop's own, as they are named. */
export async function causeWords(db: Database, workshopId: string): Promise<Pick<Cause, "defect" | "words">[]> {
  return [...CAUSES, ...(await readOwnCauses(db, workshopId))].map(({ defect, words }) => ({ defect, words }));
}
