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

/** What of a workshop has these letters in its name, whatever their case: batches (also by number), burn trials, formulas, products, orders, processes, and things on the shelf. */
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
    ...made.map((one) => ({ kind: "batch", name: `${one.number}: ${one.name}`, path: `/records/${one.id}` })),
    ...burned.map((one) => ({ kind: "burn trial", name: `${one.number}: ${one.name}`, path: `/burn/${one.id}` })),
    ...recipes.map((one) => ({ kind: "formula", name: one.name, path: `/formulas/${one.id}` })),
    ...sold.map((one) => ({ kind: "product", name: one.name, path: `/products/${one.id}` })),
    ...asked.map((one) => ({ kind: one.what === "order" ? "order" : "market day", name: `${one.number}: ${one.name}`, path: `/sell/${one.id}` })),
    ...packed.map((one) => ({ kind: "set", name: one.name, path: `/sell/sets/${one.id}` })),
    ...ways.map((one) => ({ kind: "process", name: one.name, path: `/formulas/processes/${one.id}` })),
    ...kinds.flatMap((kind, index) =>
      (things[index] ?? []).map((one) => ({
        kind,
        name: one.name,
        path: STOCKED.some((stocked) => stocked === kind) ? `/shelf/${kind}/${one.id}` : `/shelf?kind=${kind}&q=${encodeURIComponent(one.name)}`,
      })),
    ),
  ];
}
