import { type FormulaSpec, readFormula as readSpec } from "@hearth/core";
import { and, count, desc, eq, inArray, lt, or } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";

export interface FormulaListed {
  id: string;
  name: string;
  number: number;
  spec: FormulaSpec;
  updatedAt: string;
}

/** Every formula in its newest version, by name: what a plan chooses from. */
export async function listForPlan(
  db: Database,
  workshopId: string,
): Promise<{ id: string; name: string; versionId: string; number: number; spec: FormulaSpec }[]> {
  const rows = await db
    .selectDistinctOn([formulaVersions.formulaId], {
      id: formulas.id,
      name: formulas.name,
      versionId: formulaVersions.id,
      number: formulaVersions.number,
      spec: formulaVersions.spec,
    })
    .from(formulaVersions)
    .innerJoin(formulas, and(eq(formulas.workshopId, formulaVersions.workshopId), eq(formulas.id, formulaVersions.formulaId)))
    .where(eq(formulaVersions.workshopId, workshopId))
    .orderBy(formulaVersions.formulaId, desc(formulaVersions.number))
    .limit(1_000);
  return rows.map((row) => ({ ...row, spec: readSpec(row.spec) })).sort((a, b) => a.name.localeCompare(b.name));
}

const PAGE = 40;

/** Formulas with their newest versions, last changed first, a page at a time. */
export async function listFormulas(db: Database, workshopId: string, after?: string): Promise<{ formulas: FormulaListed[]; more: string | null }> {
  const [at, id] = after?.split("_") ?? [];
  const rows = await db
    .select()
    .from(formulas)
    .where(
      and(
        eq(formulas.workshopId, workshopId),
        at && id && !Number.isNaN(Date.parse(at)) && /^[0-9a-f-]{36}$/.test(id)
          ? or(lt(formulas.updatedAt, at), and(eq(formulas.updatedAt, at), lt(formulas.id, id)))
          : undefined,
      ),
    )
    .orderBy(desc(formulas.updatedAt), desc(formulas.id))
    .limit(PAGE + 1);
  const page = rows.slice(0, PAGE);
  const versions = page.length
    ? await db
        .selectDistinctOn([formulaVersions.formulaId])
        .from(formulaVersions)
        .where(
          and(
            eq(formulaVersions.workshopId, workshopId),
            inArray(
              formulaVersions.formulaId,
              page.map((row) => row.id),
            ),
          ),
        )
        .orderBy(formulaVersions.formulaId, desc(formulaVersions.number))
    : [];
  const newest = new Map(versions.map((version) => [version.formulaId, version]));
  const last = page.at(-1);
  return {
    formulas: page.flatMap((row) => {
      const version = newest.get(row.id);
      return version
        ? [{ id: row.id, name: row.name, number: version.number, spec: readSpec(version.spec), updatedAt: new Date(row.updatedAt).toISOString() }]
        : [];
    }),
    more: rows.length > PAGE && last ? `${new Date(last.updatedAt).toISOString()}_${last.id}` : null,
  };
}

/** One formula with its versions, newest first, and how many batches each has. */
export async function readFormula(db: Database, workshopId: string, id: string) {
  const [formula] = await db
    .select()
    .from(formulas)
    .where(and(eq(formulas.workshopId, workshopId), eq(formulas.id, id)));
  if (!formula) return null;
  const versions = await db
    .select({
      id: formulaVersions.id,
      number: formulaVersions.number,
      spec: formulaVersions.spec,
      createdAt: formulaVersions.createdAt,
      batches: count(batches.id),
    })
    .from(formulaVersions)
    .leftJoin(batches, and(eq(batches.workshopId, formulaVersions.workshopId), eq(batches.formulaVersionId, formulaVersions.id)))
    .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.formulaId, id)))
    .groupBy(formulaVersions.workshopId, formulaVersions.id)
    .orderBy(desc(formulaVersions.number))
    .limit(50);
  return {
    id: formula.id,
    name: formula.name,
    version: formula.version,
    updatedBy: formula.updatedBy,
    updatedAt: formula.updatedAt,
    versions: versions.map((one) => ({ ...one, spec: readSpec(one.spec) })),
  };
}
