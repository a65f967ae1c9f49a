import { type FormulaSpec, readFormula as readSpec } from "@hearth/core";
import { and, count, desc, eq, ilike, inArray, sql } from "drizzle-orm";
import { REAL_STAGES } from "@/data/batch-rows";
import type { Database, Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { containing, naturalSort } from "@/server/shared/natural-sort";

export interface FormulaListed {
  id: string;
  name: string;
  number: number;
  spec: FormulaSpec;
  updatedAt: string;
  archived: boolean;
}

/** One formula in its newest version: what a plan is made from; null if there is none such. */
export async function formulaForPlan(db: Database | Transaction, workshopId: string, id: string) {
  const [row] = await db
    .select({ id: formulas.id, name: formulas.name, versionId: formulaVersions.id, number: formulaVersions.number, spec: formulaVersions.spec })
    .from(formulaVersions)
    .innerJoin(formulas, and(eq(formulas.workshopId, formulaVersions.workshopId), eq(formulas.id, formulaVersions.formulaId)))
    .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.formulaId, id)))
    .orderBy(desc(formulaVersions.number))
    .limit(1);
  return row ? { ...row, spec: readSpec(row.spec) } : null;
}

/** Returns the newest version of each formula, to be joined to it. */
export const newestVersions = (db: Database, workshopId: string) =>
  db
    .selectDistinctOn([formulaVersions.formulaId], { formulaId: formulaVersions.formulaId, number: formulaVersions.number, spec: formulaVersions.spec })
    .from(formulaVersions)
    .where(eq(formulaVersions.workshopId, workshopId))
    .orderBy(formulaVersions.formulaId, desc(formulaVersions.number))
    .as("newest");

/** Returns the newest version of each of these formulas. */
const newestOf = (db: Database, workshopId: string, ids: readonly string[]) =>
  db
    .selectDistinctOn([formulaVersions.formulaId], { formulaId: formulaVersions.formulaId, number: formulaVersions.number, spec: formulaVersions.spec })
    .from(formulaVersions)
    .where(and(eq(formulaVersions.workshopId, workshopId), inArray(formulaVersions.formulaId, [...ids])))
    .orderBy(formulaVersions.formulaId, desc(formulaVersions.number));

const PAGE = 30;

export interface FormulasAsked {
  q?: string | undefined;
  /** Family of its first wax. */
  family?: string | undefined;
  away?: boolean | undefined;
  order?: "name" | "changed" | undefined;
  page?: number | undefined;
}

/** Returns formulas in their newest versions, a page at a time: by name, or last changed first. */
export async function listFormulas(
  db: Database,
  workshopId: string,
  asked: FormulasAsked = {},
): Promise<{ formulas: FormulaListed[]; found: number; pages: number }> {
  const where = and(
    eq(formulas.workshopId, workshopId),
    eq(formulas.archived, asked.away ?? false),
    asked.q ? ilike(formulas.name, containing(asked.q)) : undefined,
    asked.family
      ? sql`exists (select 1 from wax w where w.workshop_id = ${workshopId} and w.family = ${asked.family} and w.id::text = (
          select v.spec -> 'waxes' -> 0 ->> 'id' from formula_version v
          where v.workshop_id = ${workshopId} and v.formula_id = ${formulas.id} order by v.number desc limit 1))`
      : undefined,
  );
  const found = await db.$count(formulas, where);
  const pages = Math.max(1, Math.ceil(found / PAGE));
  const listed = await db
    .select({ id: formulas.id, name: formulas.name, updatedAt: formulas.updatedAt, archived: formulas.archived })
    .from(formulas)
    .where(where)
    .orderBy(...(asked.order === "changed" ? [desc(formulas.updatedAt)] : []), naturalSort(formulas.name), formulas.id)
    .limit(PAGE)
    .offset((Math.min(asked.page ?? 1, pages) - 1) * PAGE);
  // The versions of this page alone, however many formulas there are.
  const ids = listed.map((item) => item.id);
  const newest = new Map((await newestOf(db, workshopId, ids)).map((item) => [item.formulaId, item]));
  return {
    formulas: listed.flatMap((row) => {
      const version = newest.get(row.id);
      return version ? [{ ...row, number: version.number, spec: readSpec(version.spec), updatedAt: new Date(row.updatedAt).toISOString() }] : [];
    }),
    found,
    pages,
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
    .leftJoin(
      batches,
      and(eq(batches.workshopId, formulaVersions.workshopId), eq(batches.formulaVersionId, formulaVersions.id), inArray(batches.stage, REAL_STAGES)),
    )
    .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.formulaId, id)))
    .groupBy(formulaVersions.workshopId, formulaVersions.id)
    .orderBy(desc(formulaVersions.number));
  return {
    id: formula.id,
    name: formula.name,
    version: formula.version,
    updatedBy: formula.updatedBy,
    updatedAt: formula.updatedAt,
    archived: formula.archived,
    versions: versions.map((version) => ({ ...version, spec: readSpec(version.spec) })),
  };
}
