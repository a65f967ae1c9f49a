import { SHELF_KINDS, type ShelfKind, STOCKED, type StockedKind } from "@hearth/core";
import { and, count, eq, ilike, inArray, type SQL, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { stockUses } from "@/data/tables/stock";
import { people } from "@/data/tables/workshop";
import { containing, naturalSort } from "@/server/shared/natural-sort";
import { readStocks, type Stocks } from "./shelf";
import { type ThingTable, tableOf } from "./tables";

export type ShelfRow = { id: string; name: string; version: number; archived: boolean } & Record<string, unknown>;

export interface ShelfAsked {
  kind?: ShelfKind | undefined;
  q?: string | undefined;
  /** Waxes of it, and what suits it. */
  family?: string | undefined;
  low?: boolean | undefined;
  away?: boolean | undefined;
  page?: number | undefined;
}

export interface ShelfPart {
  kind: ShelfKind;
  rows: ShelfRow[];
  found: number;
}

/** Rows of a kind beside the others, and where it stands alone. */
const BESIDE = 30;
const ALONE = 40;
/** So many days back are looked at for how long a thing goes on. */
const LATELY_DAYS = 90;

const isStocked = (kind: ShelfKind): kind is StockedKind => (STOCKED as readonly string[]).includes(kind);

/** Returns the condition that a row is of a family; undefined for kinds that have none. */
function ofFamily(kind: ShelfKind, family: string): SQL | undefined {
  if (kind === "wax") return sql`family = ${family}`;
  if (kind === "fragrance" || kind === "wick") return sql`(families is null or families ? ${family})`;
  return sql`false`;
}

async function partOf(db: Database, workshopId: string, kind: ShelfKind, asked: ShelfAsked, lowIds: readonly string[] | null): Promise<ShelfPart> {
  const table: ThingTable = kind === "person" ? people : tableOf(kind);
  const where = and(
    eq(table.workshopId, workshopId),
    eq(table.archived, asked.away ?? false),
    asked.q ? ilike(table.name, containing(asked.q)) : undefined,
    asked.family ? ofFamily(kind, asked.family) : undefined,
    lowIds ? (lowIds.length > 0 ? inArray(table.id, [...lowIds]) : sql`false`) : undefined,
  );
  const most = asked.kind ? ALONE : BESIDE;
  const [total] = await db.select({ n: count() }).from(table).where(where);
  const found = total?.n ?? 0;
  const page = asked.kind ? Math.min(asked.page ?? 1, Math.max(1, Math.ceil(found / most))) : 1;
  const rows = await db
    .select()
    .from(table)
    .where(where)
    .orderBy(naturalSort(table.name), table.id)
    .limit(most)
    .offset((page - 1) * most);
  return { kind, rows: rows as ShelfRow[], found };
}

/** Returns the shelf as it is asked for: of each kind the first rows, or one kind page by page; with the stock of what is shown, and for how many batches it goes on. */
export async function readShelfPage(
  db: Database,
  workshop: { id: string; timeZone: string },
  asked: ShelfAsked,
  lowIds: readonly string[] | null,
  now: string,
) {
  const kinds = asked.kind ? [asked.kind] : SHELF_KINDS;
  const parts = await Promise.all(kinds.map((kind) => partOf(db, workshop.id, kind, asked, lowIds)));
  const shown = parts.flatMap((part) => (isStocked(part.kind) ? part.rows.map((row) => row.id) : []));
  const since = new Date(Date.parse(now) - LATELY_DAYS * 86_400_000).toISOString();
  const [stocks, used] = await Promise.all([
    readStocks(db, workshop.id, workshop.timeZone, shown),
    shown.length === 0
      ? []
      : db
          .select({ id: stockUses.materialId, each: sql<number>`sum(${stockUses.amount}) / count(distinct ${stockUses.batchId})`.mapWith(Number) })
          .from(stockUses)
          .where(and(eq(stockUses.workshopId, workshop.id), inArray(stockUses.materialId, shown), sql`${stockUses.at} > ${since}`))
          .groupBy(stockUses.materialId),
  ]);
  const goesOn: Record<string, number> = {};
  for (const { id, each } of used) {
    const there = stocks[id]?.onHand ?? 0;
    if (there > 0 && each > 0) goesOn[id] = Math.floor(there / each);
  }
  const pages = asked.kind ? Math.max(1, Math.ceil((parts[0]?.found ?? 0) / ALONE)) : 1;
  return { parts, stocks: stocks as Stocks, goesOn, pages };
}
export type ShelfPage = Awaited<ReturnType<typeof readShelfPage>>;
