import { type Level, shareDifference } from "@hearth/core";
import { sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { ALL_TIME, type Period, within } from "@/server/http/period";
import { FACTORS, factorOf, flawsByLevel, levelColumns, listed, namesOf } from "./findings";

export interface GroupedFlaw {
  defect: string;
  name: string;
  a: Pick<Level, "k" | "n" | "batches">;
  b: Pick<Level, "k" | "n" | "batches">;
  shares: ReturnType<typeof shareDifference>;
}
export interface ComparedGroups {
  factor: string;
  words: string;
  levels: { level: string; name: string; batches: number }[];
  a: string | null;
  b: string | null;
  flaws: GroupedFlaw[];
  /** What else is not alike in the two: the commonest level of each, and its share of the batches. */
  also: { words: string; a: { level: string; share: number }; b: { level: string; share: number } }[];
}

/** Shares of batches that differ by so much are said to differ between two groups. */
const APART = 0.3;

/** Returns two groups of batches side by side: those at one level of a factor and those at another. Null for an unknown factor. */
export async function compareGroups(
  db: Database,
  workshopId: string,
  factor: string,
  asked: { a?: string | undefined; b?: string | undefined },
  period: Period = ALL_TIME,
): Promise<ComparedGroups | null> {
  const source = factorOf(factor);
  if (!source) return null;
  const [byLevel, names] = await Promise.all([flawsByLevel(db, workshopId, source.of, period), namesOf(db, workshopId)]);
  const levels = byLevel.levels.map((item) => ({ ...item, name: names.get(item.level) ?? item.level }));
  const known = (level: string | undefined) => levels.find((item) => item.level === level)?.level;
  const a = known(asked.a) ?? levels[0]?.level ?? null;
  const b = known(asked.b) ?? levels.find((level) => level.level !== a)?.level ?? null;
  const none = { factor, words: source.words, levels, a, b, flaws: [], also: [] };
  if (a === null || b === null || a === b) return none;
  const also = await alsoDiffers(db, workshopId, factor, a, b, names, period);
  const flaws = byLevel.defects.flatMap(({ defect, name }): GroupedFlaw[] => {
    const [x, y] = [a, b].map((level) => byLevel.at(defect, level));
    return x && y ? [{ defect, name, a: x, b: y, shares: shareDifference(x, y) }] : [];
  });
  return { ...none, flaws, also };
}

async function alsoDiffers(
  db: Database,
  workshopId: string,
  factor: string,
  a: string,
  b: string,
  names: ReadonlyMap<string, string>,
  period: Period,
): Promise<ComparedGroups["also"]> {
  const source = factorOf(factor);
  const others = FACTORS.filter((factorSource) => factorSource.name !== factor);
  const ids = others.map((factorSource) => sql.identifier(factorSource.name));
  const { rows } = await db.execute<Record<string, string | null> & { side: string; which: number; n: number }>(sql`
    with p as materialized (select ${source?.of ?? sql`null`} side, ${levelColumns(others)} from outcome o where o.workshop_id = ${workshopId} and o.looked and ${within(period, sql`o.poured_at`)})
    select side, ${listed(ids)}, grouping(${listed(ids)})::int which, count(*)::int n from p where side in (${a}, ${b})
    group by grouping sets (${listed(ids.map((id) => sql`(side, ${id})`))})`);
  const all = 2 ** others.length - 1;
  return others.flatMap(({ name, words }, index) => {
    const mine = rows.filter((row) => row.which === all - 2 ** (others.length - 1 - index) && row[name] !== null);
    const total = (side: string) => mine.reduce((sum, row) => sum + (row.side === side ? row.n : 0), 0);
    const share = (side: string, level: string) => (mine.find((row) => row.side === side && row[name] === level)?.n ?? 0) / Math.max(1, total(side));
    const commonest = (side: string) =>
      mine
        .filter((row) => row.side === side)
        .reduce<{ level: string; n: number } | null>((best, row) => (best && best.n >= row.n ? best : { level: row[name] ?? "", n: row.n }), null);
    const [x, y] = [commonest(a), commonest(b)];
    if (!x || !y) return [];
    const apart = Math.max(Math.abs(share(a, x.level) - share(b, x.level)), Math.abs(share(a, y.level) - share(b, y.level)));
    if (apart < APART) return [];
    const said = (side: string, level: string) => ({ level: names.get(level) ?? level, share: share(side, level) });
    return [{ words, a: said(a, x.level), b: said(b, y.level) }];
  });
}
