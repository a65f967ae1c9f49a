import { completeValues, NAMED_KINDS, type NameChoice, type NamedKind, type NameUse, nameKey, shelfValues } from "@hearth/core";
import { eq } from "drizzle-orm";
import { v7 } from "uuid";
import type { Transaction } from "@/data/client";
import type { CreatedByImport } from "@/data/tables/note-import";
import { tableOf } from "@/server/inventory/tables";

/** What a thing that only a notebook knows is put on the shelf with: nothing that the notebook does not say. */
const VALUES: Record<NamedKind, (choice: { name: string; family?: string | undefined; fillMg?: number | undefined }) => Record<string, unknown>> = {
  wax: ({ name, family }) => ({ name, family: family ?? "other" }),
  fragrance: ({ name }) => ({ name, kind: "fragrance" }),
  vessel: ({ name, fillMg }) => ({ name, material: "heat-safe glass", workingFillMg: fillMg ?? null, remarks: "From notes: check its material and measures." }),
  wick: ({ name }) => ({ name, kind: "other" }),
};

/**
 * Puts what a notebook names and the shelf lacks on the shelf, and gives the id of every name, by its key. One that is there by the same name meanwhile is taken.
 * @throws z.ZodError if a name or a fill is out of range
 */
export async function putOnShelf(
  tx: Transaction,
  workshopId: string,
  uses: readonly NameUse[],
  choices: Readonly<Record<string, NameChoice>>,
): Promise<{ ids: ReadonlyMap<string, string>; created: CreatedByImport["shelf"] }> {
  const ids = new Map<string, string>();
  const created: CreatedByImport["shelf"] = [];
  for (const kind of NAMED_KINDS) {
    const table = tableOf(kind);
    const there = await tx.select({ id: table.id, name: table.name }).from(table).where(eq(table.workshopId, workshopId));
    const byName = new Map(there.map((item) => [nameKey(kind, item.name), item.id]));
    const known = new Set(there.map((item) => item.id));
    const rows: Record<string, unknown>[] = [];
    for (const use of uses.filter((item) => item.kind === kind)) {
      const choice = choices[use.key];
      if (choice && "id" in choice) {
        if (known.has(choice.id)) ids.set(use.key, choice.id);
        continue;
      }
      if (!choice) continue;
      const same = byName.get(nameKey(kind, choice.name));
      if (same) {
        ids.set(use.key, same);
        continue;
      }
      const id = v7();
      rows.push({ ...shelfValues(kind).parse(completeValues(kind, VALUES[kind](choice))), id, workshopId });
      byName.set(nameKey(kind, choice.name), id);
      ids.set(use.key, id);
      created.push({ kind, id });
    }
    if (rows.length > 0) await tx.insert(table).values(rows as (typeof table.$inferInsert)[]);
  }
  return { ids, created };
}
