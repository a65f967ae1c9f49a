import { SHEET_KINDS, type SheetKind } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { lots } from "@/data/tables/stock";
import { here } from "@/server/context";
import { sheetContext, sheetTable } from "@/server/sheets";
import { ShelfFile } from "@/stations/shelf/file";

export const metadata = { title: "Shelf to and from a file" };

export default async function ShelfFilePage() {
  const { db, workshop } = await here();
  const kept = await Promise.all(
    SHEET_KINDS.map(async (kind) => {
      const table = sheetTable(kind);
      const mine = eq(table.workshopId, workshop.id);
      const rows = await db
        .select()
        .from(table)
        .where(kind === "lot" ? and(mine, eq(lots.withdrawn, false)) : mine);
      return [kind, rows] as const;
    }),
  );
  const { bodies: _bodies, kinds: _kinds, ...context } = await sheetContext(db, workshop);
  return <ShelfFile kept={Object.fromEntries(kept) as unknown as Record<SheetKind, { id: string; name: string }[]>} context={context} />;
}
