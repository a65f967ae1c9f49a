import { countOf, NAMED_KINDS, ok, type Result, reject } from "@hearth/core";
import { and, eq, inArray, sql } from "drizzle-orm";
import type { Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { noteImports } from "@/data/tables/note-import";
import { products } from "@/data/tables/product";
import type { Actor } from "@/server/http/context";
import { tableOf } from "@/server/inventory/tables";

/** What stayed after an import was undone, since something else uses it. */
export interface NotesUndone {
  kept: string[];
}

/** Returns which of these ids other rows of the workshop name: formulas, products, lots, batches, blends. */
async function namedElsewhere(tx: Transaction, workshopId: string, ids: readonly string[]): Promise<ReadonlySet<string>> {
  if (ids.length === 0) return new Set();
  const { rows } = await tx.execute<{ id: string }>(sql`
    select id::text from unnest(${sql.param([...ids])}::uuid[]) as wanted(id) where
      exists (select 1 from formula_version v where v.workshop_id = ${workshopId} and v.spec::text like '%' || wanted.id || '%')
      or exists (select 1 from product p where p.workshop_id = ${workshopId} and p::text like '%' || wanted.id || '%')
      or exists (select 1 from lot l where l.workshop_id = ${workshopId} and l.material_id = wanted.id)
      or exists (select 1 from stock_use u where u.workshop_id = ${workshopId} and u.material_id = wanted.id)
      or exists (select 1 from wax w where w.workshop_id = ${workshopId} and w.blend::text like '%' || wanted.id || '%')
      or exists (select 1 from outcome o where o.workshop_id = ${workshopId} and o.product like wanted.id || '%')
      or exists (select 1 from burn_outcome b where b.workshop_id = ${workshopId} and (b.container_id = wanted.id or b.wick_id = wanted.id))`);
  return new Set(rows.map((row) => row.id));
}

/**
 * Undoes an import of notes within a transaction: its batches and trials with their entries, the formulas made for them, and what it put on the shelf. What
 * something else uses by now stays. Rejected where one of its batches or trials has later entries.
 */
export async function undoNotesIn(tx: Transaction, { workshop, now }: Actor, importId: string): Promise<Result<NotesUndone>> {
  const mine = and(eq(noteImports.workshopId, workshop.id), eq(noteImports.id, importId));
  const [row] = await tx.select().from(noteImports).where(mine).for("no key update");
  if (!row) return reject("This import is no longer in this workshop.");
  if (row.undoneAt) return ok({ kept: [] });
  const { rows } = await tx.execute<{ blocked: number }>(sql`select undo_note_import(${workshop.id}, ${importId}) as blocked`);
  const blocked = rows[0]?.blocked ?? -1;
  if (blocked !== 0)
    return reject(
      `${countOf(Math.abs(blocked), "of its records has", "of its records have")} later entries or test candles, so that the import cannot be undone. Delete those entries first.`,
    );
  const { shelf, formulas: madeFormulas, versions } = row.created;
  const kept: string[] = [];
  // A version that another batch was made from stays, and its formula with it.
  const used = versions.length
    ? await tx
        .select({ id: batches.formulaVersionId })
        .from(batches)
        .where(and(eq(batches.workshopId, workshop.id), inArray(batches.formulaVersionId, versions)))
    : [];
  const inUse = new Set(used.map((item) => item.id));
  const free = versions.filter((id) => !inUse.has(id));
  const ofProducts = madeFormulas.length
    ? await tx
        .select({ id: products.formulaId })
        .from(products)
        .where(and(eq(products.workshopId, workshop.id), inArray(products.formulaId, madeFormulas)))
    : [];
  const wanted = new Set(ofProducts.map((item) => item.id));
  if (free.length > 0)
    await tx.delete(formulaVersions).where(
      and(
        eq(formulaVersions.workshopId, workshop.id),
        inArray(formulaVersions.id, free),
        wanted.size > 0
          ? sql`${formulaVersions.formulaId} not in (${sql.join(
              [...wanted].map((id) => sql`${id}::uuid`),
              sql`, `,
            )})`
          : undefined,
      ),
    );
  if (madeFormulas.length > 0) {
    const gone = await tx
      .delete(formulas)
      .where(
        and(
          eq(formulas.workshopId, workshop.id),
          inArray(formulas.id, madeFormulas),
          sql`not exists (select 1 from formula_version v where v.workshop_id = ${workshop.id} and v.formula_id = ${formulas.id})`,
        ),
      )
      .returning({ id: formulas.id });
    if (gone.length < madeFormulas.length) kept.push(countOf(madeFormulas.length - gone.length, "formula", "formulas"));
  }
  const named = await namedElsewhere(
    tx,
    workshop.id,
    shelf.map((item) => item.id),
  );
  for (const kind of NAMED_KINDS) {
    const ids = shelf.filter((item) => item.kind === kind && !named.has(item.id)).map((item) => item.id);
    const table = tableOf(kind);
    if (ids.length > 0) await tx.delete(table).where(and(eq(table.workshopId, workshop.id), inArray(table.id, ids)));
  }
  if (named.size > 0) kept.push(countOf(named.size, "thing on the shelf", "things on the shelf"));
  await tx.update(noteImports).set({ undoneAt: now }).where(mine);
  return ok({ kept });
}
