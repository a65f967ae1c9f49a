import { SHELF_KINDS, type ShelfKind, STOCKED } from "@hearth/core";
import { and, desc, eq, ilike, inArray, or } from "drizzle-orm";
import { REAL_STAGES } from "@/data/batch-rows";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { processes } from "@/data/tables/process";
import { products } from "@/data/tables/product";
import { orders, sets } from "@/data/tables/sales";
import { trials } from "@/data/tables/trial";
import { tableOf } from "@/server/inventory/tables";
import { containing, naturalSort } from "@/server/shared/natural-sort";

/** Something that can be gone to. */
export interface Found {
  kind: string;
  name: string;
  path: string;
}

/** At most so many of each sort are offered; more letters find the rest. */
const EACH = 6;

/** Returns what of a workshop has these letters in its name, whatever their case: batches (also by number), burn trials, formulas, products, orders, processes, and things on the shelf. */
export async function find(db: Database, workshopId: string, text: string): Promise<Found[]> {
  const like = containing(text);
  const number = /^\d{1,9}$/.test(text.trim()) ? Number(text.trim()) : null;
  const kinds = SHELF_KINDS.filter((kind): kind is Exclude<ShelfKind, "person"> => kind !== "person");
  const [made, burned, recipes, ways, sold, asked, packed, ...things] = await Promise.all([
    db
      .select({ id: batches.id, number: batches.number, name: formulas.name })
      .from(batches)
      .innerJoin(formulaVersions, and(eq(formulaVersions.workshopId, batches.workshopId), eq(formulaVersions.id, batches.formulaVersionId)))
      .innerJoin(formulas, and(eq(formulas.workshopId, formulaVersions.workshopId), eq(formulas.id, formulaVersions.formulaId)))
      .where(
        and(
          eq(batches.workshopId, workshopId),
          inArray(batches.stage, REAL_STAGES),
          or(number === null ? undefined : eq(batches.number, number), ilike(formulas.name, like)),
        ),
      )
      .orderBy(desc(batches.number))
      .limit(EACH),
    db
      .select({ id: trials.id, number: trials.number, name: trials.name })
      .from(trials)
      .where(and(eq(trials.workshopId, workshopId), ilike(trials.name, like)))
      .orderBy(desc(trials.number))
      .limit(EACH),
    db
      .select({ id: formulas.id, name: formulas.name })
      .from(formulas)
      .where(and(eq(formulas.workshopId, workshopId), ilike(formulas.name, like)))
      .orderBy(formulas.name)
      .limit(EACH),
    db
      .select({ id: processes.id, name: processes.name })
      .from(processes)
      .where(and(eq(processes.workshopId, workshopId), ilike(processes.name, like)))
      .orderBy(processes.name)
      .limit(EACH),
    db
      .select({ id: products.id, name: products.name })
      .from(products)
      .where(and(eq(products.workshopId, workshopId), eq(products.archived, false), ilike(products.name, like)))
      .orderBy(naturalSort(products.name))
      .limit(EACH),
    db
      .select({ id: orders.id, number: orders.number, what: orders.what, name: orders.name })
      .from(orders)
      .where(and(eq(orders.workshopId, workshopId), ilike(orders.name, like)))
      .orderBy(desc(orders.number))
      .limit(EACH),
    db
      .select({ id: sets.id, name: sets.name })
      .from(sets)
      .where(and(eq(sets.workshopId, workshopId), eq(sets.archived, false), ilike(sets.name, like)))
      .orderBy(naturalSort(sets.name))
      .limit(EACH),
    ...kinds.map((kind) => {
      const table = tableOf(kind);
      return db
        .select({ id: table.id, name: table.name })
        .from(table)
        .where(and(eq(table.workshopId, workshopId), ilike(table.name, like)))
        .orderBy(table.name)
        .limit(EACH);
    }),
  ]);
  return [
    ...made.map((item) => ({ kind: "batch", name: `${item.number}: ${item.name}`, path: `/records/${item.id}` })),
    ...burned.map((item) => ({ kind: "burn trial", name: `${item.number}: ${item.name}`, path: `/burn/${item.id}` })),
    ...recipes.map((recipe) => ({ kind: "formula", name: recipe.name, path: `/formulas/${recipe.id}` })),
    ...sold.map((item) => ({ kind: "product", name: item.name, path: `/products/${item.id}` })),
    ...asked.map((item) => ({ kind: item.what === "order" ? "order" : "market day", name: `${item.number}: ${item.name}`, path: `/sell/${item.id}` })),
    ...packed.map((item) => ({ kind: "set", name: item.name, path: `/sell/sets/${item.id}` })),
    ...ways.map((way) => ({ kind: "process", name: way.name, path: `/formulas/processes/${way.id}` })),
    ...kinds.flatMap((kind, index) =>
      (things[index] ?? []).map((item) => ({
        kind,
        name: item.name,
        path: STOCKED.some((stocked) => stocked === kind) ? `/shelf/${kind}/${item.id}` : `/shelf?kind=${kind}&q=${encodeURIComponent(item.name)}`,
      })),
    ),
  ];
}
