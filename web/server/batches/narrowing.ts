import { DEFECTS } from "@hearth/core";
import { and, eq, min, type SQL, sql } from "drizzle-orm";
import { z } from "zod";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { outcomeFlaws } from "@/data/tables/finding";
import { products } from "@/data/tables/product";
import { vessels, waxes } from "@/data/tables/shelf";
import { people } from "@/data/tables/workshop";
import { type Period, within } from "@/server/http/period";
import { naturalSort } from "@/server/shared/natural-sort";

/** What a list of batches can be narrowed by, as an address has it. */
export const NARROW_QUERY = { flaw: z.string().max(60), product: z.uuid(), vessel: z.uuid(), wax: z.uuid(), by: z.uuid() };
export interface Narrowing {
  /** When it was started. */
  period?: Period;
  flaw?: string | undefined;
  product?: string | undefined;
  vessel?: string | undefined;
  wax?: string | undefined;
  /** Who poured it. */
  by?: string | undefined;
}

/** Returns the condition that a batch is one of those asked for. */
export function narrowedTo(workshopId: string, { period, flaw, product, vessel, wax, by }: Narrowing): SQL | undefined {
  const outcome = (condition: SQL) => sql`exists (select 1 from outcome o where o.workshop_id = ${workshopId} and o.batch_id = ${batches.id} and ${condition})`;
  return and(
    period ? within(period, sql`${batches.startedAt}`) : undefined,
    flaw ? sql`exists (select 1 from outcome_flaw f where f.workshop_id = ${workshopId} and f.batch_id = ${batches.id} and f.defect = ${flaw})` : undefined,
    // A product of a batch is named by its vessel or mold, with a number where several pots fill the same.
    vessel ? outcome(sql`o.product like ${`${vessel}%`}`) : undefined,
    product
      ? sql`exists (select 1 from product p join formula_version v on v.workshop_id = p.workshop_id and v.formula_id = p.formula_id
          join outcome o on o.workshop_id = p.workshop_id and o.batch_id = ${batches.id} and o.product like p.container_id::text || '%'
          where p.workshop_id = ${workshopId} and p.id = ${product}::uuid and v.id = ${batches.formulaVersionId})`
      : undefined,
    wax
      ? // What came from notes drew no stock.
        sql`(exists (select 1 from stock_use u where u.workshop_id = ${workshopId} and u.batch_id = ${batches.id} and u.material_id = ${wax}::uuid)
          or (${batches.noteImportId} is not null and exists (select 1 from formula_version v where v.workshop_id = ${workshopId}
            and v.id = ${batches.formulaVersionId} and v.spec -> 'waxes' @> jsonb_build_array(jsonb_build_object('id', ${wax}::text)))))`
      : undefined,
    by ? outcome(sql`o.person_id = ${by}::uuid`) : undefined,
  );
}

interface Named {
  value: string;
  label: string;
}
/** What the lists of a workshop can be narrowed to: what there is or was of each. */
export interface NarrowingOptions {
  flaws: Named[];
  products: Named[];
  vessels: Named[];
  waxes: Named[];
  people: Named[];
  /** The year of the first batch; null before there is one. */
  firstYear: number | null;
}

/** Returns what lists can be narrowed to, by name. */
export async function narrowingOptions(db: Database, workshopId: string): Promise<NarrowingOptions> {
  const named = (table: typeof products | typeof vessels | typeof waxes | typeof people) =>
    db
      .select({ value: table.id, label: table.name })
      .from(table as typeof products)
      .where(eq(table.workshopId, workshopId))
      .orderBy(naturalSort(table.name));
  const [seen, p, v, w, who, [first]] = await Promise.all([
    db.selectDistinct({ defect: outcomeFlaws.defect }).from(outcomeFlaws).where(eq(outcomeFlaws.workshopId, workshopId)),
    named(products),
    named(vessels),
    named(waxes),
    named(people),
    db
      .select({ at: min(batches.startedAt) })
      .from(batches)
      .where(eq(batches.workshopId, workshopId)),
  ]);
  const defects = new Set(seen.map((row) => row.defect));
  return {
    flaws: DEFECTS.filter((defect) => defects.has(defect.id)).map((defect) => ({ value: defect.id, label: defect.name })),
    products: p,
    vessels: v,
    waxes: w,
    people: who,
    firstYear: first?.at ? new Date(first.at).getUTCFullYear() : null,
  };
}
