import type { BatchFacts } from "@hearth/core";
import { and, eq, inArray, sql } from "drizzle-orm";
import type { Transaction } from "@/data/client";
import { merges } from "@/data/tables/merged";
import { stockUses } from "@/data/tables/stock";

/** Under which name each of these is kept now, where it was merged with another. */
async function mergedNames(tx: Transaction, workshopId: string, ids: string[]): Promise<Map<string, string>> {
  const names = new Map<string, string>();
  let asked = ids;
  // One that was merged can itself have gone into another since.
  for (let step = 0; asked.length > 0 && step < 8; step++) {
    const rows = await tx
      .select({ gone: merges.goneId, kept: merges.keptId })
      .from(merges)
      .where(and(eq(merges.workshopId, workshopId), eq(merges.undone, false), inArray(merges.goneId, asked)));
    for (const row of rows) names.set(row.gone, row.kept);
    asked = rows.map((row) => row.kept);
  }
  return names;
}

/** What was drawn, under the names that are kept: two that were merged are drawn as one. */
function underKeptNames(drawn: BatchFacts["drawn"], names: ReadonlyMap<string, string>): BatchFacts["drawn"] {
  if (names.size === 0) return drawn;
  const out: BatchFacts["drawn"] = {};
  for (const [id, draw] of Object.entries(drawn)) {
    let name = id;
    for (let step = 0; step < 8 && names.has(name); step++) name = names.get(name) as string;
    const there = out[name];
    out[name] = there ? { ...draw, amount: there.amount + draw.amount, at: there.at > draw.at ? there.at : draw.at } : draw;
  }
  return out;
}

/** Writes down what a batch drew from the shelf: all of it, or only what an entry changed. */
export async function writeDraws(tx: Transaction, workshopId: string, batchId: string, new_: BatchFacts, old: BatchFacts | null): Promise<void> {
  if (old && JSON.stringify(old.drawn) === JSON.stringify(new_.drawn)) return;
  const names = await mergedNames(tx, workshopId, Object.keys({ ...old?.drawn, ...new_.drawn }));
  const facts = { drawn: underKeptNames(new_.drawn, names) };
  const before = old && { drawn: underKeptNames(old.drawn, names) };
  const changed = Object.entries(facts.drawn).filter(([id, draw]) => !before || before.drawn[id]?.amount !== draw.amount || before.drawn[id]?.at !== draw.at);
  if (!before) await tx.delete(stockUses).where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.batchId, batchId)));
  else {
    const gone = Object.keys(before.drawn).filter((id) => !facts.drawn[id]);
    if (gone.length > 0)
      await tx.delete(stockUses).where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.batchId, batchId), inArray(stockUses.materialId, gone)));
  }
  const rows = changed
    .filter(([, draw]) => draw.amount > 0)
    .map(([materialId, draw]) => ({ workshopId, batchId, materialId, amount: draw.amount, at: draw.at }));
  if (rows.length === 0) return;
  await tx
    .insert(stockUses)
    .values(rows)
    .onConflictDoUpdate({
      target: [stockUses.workshopId, stockUses.batchId, stockUses.materialId],
      set: { amount: sql`excluded.amount`, at: sql`excluded.at` },
    });
}
