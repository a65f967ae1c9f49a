import { type Level, shareDifference } from "@hearth/core";
import { sum } from "d3-array";
import { type SQL, sql } from "drizzle-orm";
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
  const others = FACTORS.filter((factorSource) => factorSource.name !== factor);
  const [byLevel, names, counts] = await Promise.all([
    flawsByLevel(db, workshopId, source.of, period),
    namesOf(db, workshopId),
    levelCounts(db, workshopId, source.of, others, period),
  ]);
  const levels = byLevel.levels.map((item) => ({ ...item, name: names.get(item.level) ?? item.level }));
  const known = (level: string | undefined) => levels.find((item) => item.level === level)?.level;
  const a = known(asked.a) ?? levels[0]?.level ?? null;
  const b = known(asked.b) ?? levels.find((level) => level.level !== a)?.level ?? null;
  const none = { factor, words: source.words, levels, a, b, flaws: [], also: [] };
  if (a === null || b === null || a === b) return none;
  const also = alsoDiffers(counts, a, b, names);
  const flaws = byLevel.defects.flatMap(({ defect, name }): GroupedFlaw[] => {
    const [x, y] = [a, b].map((level) => byLevel.at(defect, level));
    return x && y ? [{ defect, name, a: x, b: y, shares: shareDifference(x, y) }] : [];
  });
  return { ...none, flaws, also };
}

/** How many products of batches are at a level of a factor, on one side. */
interface LevelCount {
  side: string;
  level: string;
  n: number;
}

/** Returns how the levels of other factors are spread over the levels of one, for each of the others. */
async function levelCounts(
  db: Database,
  workshopId: string,
  of: SQL,
  others: typeof FACTORS,
  period: Period,
): Promise<{ words: string; counts: LevelCount[] }[]> {
  const ids = others.map((factorSource) => sql.identifier(factorSource.name));
  // In each grouping set one factor has a level, and the others are null.
  const { rows } = await db.execute<Record<string, unknown> & LevelCount & { which: number }>(sql`
    with p as materialized (select ${of} side, ${levelColumns(others)} from outcome o where o.workshop_id = ${workshopId} and o.looked and ${within(period, sql`o.poured_at`)}),
      counts as (select side, coalesce(${listed(ids)}) as level, grouping(${listed(ids)})::int which, count(*)::int n from p where side is not null
        group by grouping sets (${listed(ids.map((id) => sql`(side, ${id})`))}))
    select * from counts where level is not null order by n desc, level`);
  const all = 2 ** others.length - 1;
  return others.map(({ words }, index) => ({ words, counts: rows.filter((row) => row.which === all - 2 ** (others.length - 1 - index)) }));
}

function alsoDiffers(factors: Awaited<ReturnType<typeof levelCounts>>, a: string, b: string, names: ReadonlyMap<string, string>): ComparedGroups["also"] {
  return factors.flatMap(({ words, counts }) => {
    const on = (side: string) => counts.filter((row) => row.side === side);
    const share = (side: string, level: string) =>
      (on(side).find((row) => row.level === level)?.n ?? 0) /
      Math.max(
        1,
        sum(on(side), (row) => row.n),
      );
    // The commonest level stands first.
    const [[x], [y]] = [on(a), on(b)];
    if (!x || !y) return [];
    const apart = Math.max(Math.abs(share(a, x.level) - share(b, x.level)), Math.abs(share(a, y.level) - share(b, y.level)));
    if (apart < APART) return [];
    const said = (side: string, level: string) => ({ level: names.get(level) ?? level, share: share(side, level) });
    return [{ words, a: said(a, x.level), b: said(b, y.level) }];
  });
}
