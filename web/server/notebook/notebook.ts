import { dayAt, NAMED_KINDS, type NamedKind, type ShelfNames } from "@hearth/core";
import { and, desc, eq } from "drizzle-orm";
import type { Database } from "@/data/client";
import { noteImports } from "@/data/tables/note-import";
import { tableOf } from "@/server/inventory/tables";
import { naturalSort } from "@/server/shared/natural-sort";
import type { Workshop } from "@/server/workshops/workshops";

/** An import of a notebook as a list shows it. */
export interface ListedImport {
  id: string;
  file: string;
  day: string;
  batches: number;
  trials: number;
  formulas: number;
  undone: boolean;
}

/** Returns every import of a workshop, the newest first. */
export async function listImports(db: Database, workshop: Pick<Workshop, "id" | "timeZone">): Promise<ListedImport[]> {
  const rows = await db.select().from(noteImports).where(eq(noteImports.workshopId, workshop.id)).orderBy(desc(noteImports.at), desc(noteImports.id));
  return rows.map(({ id, file, at, batches, trials, formulas, undoneAt }) => ({
    ...{ id, file, batches, trials, formulas },
    day: dayAt(at, workshop.timeZone),
    undone: undoneAt !== null,
  }));
}

/** Returns everything of the shelf that a notebook can name, by kind. */
export async function shelfNames(db: Database, workshopId: string): Promise<ShelfNames> {
  const named = async (kind: NamedKind) => {
    const table = tableOf(kind);
    return db
      .select({ id: table.id, name: table.name })
      .from(table)
      .where(and(eq(table.workshopId, workshopId), eq(table.archived, false)))
      .orderBy(naturalSort(table.name));
  };
  const lists = await Promise.all(NAMED_KINDS.map(named));
  return Object.fromEntries(NAMED_KINDS.map((kind, index) => [kind, lists[index] ?? []])) as Record<NamedKind, { id: string; name: string }[]>;
}
