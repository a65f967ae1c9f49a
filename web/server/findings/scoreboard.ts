import {
  type BatchScore,
  type BatchSums,
  clusteredShare,
  partsOfBlendWords,
  type Room,
  roomsOf,
  type ScoredMean,
  type Share,
  scoresByWax,
  sumScores,
  THROW_COLUMNS,
  type ThrowColumn,
  type WaxScores,
} from "@hearth/core";
import { type SQL, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { scoreRows, WAX_OF_BATCH, WAX_OF_BURN, WICKS_OF_BURN } from "@/server/burn/throw-scores";
import { ALL_TIME, type Period, within } from "@/server/http/period";
import { listed } from "./findings";

/** Flaws of the top of a set candle, and where wax let go of the glass. */
const TOP_FLAWS = ["rough_top", "sinkhole", "cracks"] as const;
const WALL_FLAW = "wet_spot";

/** A temperature as it was used: the middle one of the batches, and the ends. °C. */
export interface UsedTemperature {
  middle: number;
  low: number;
  high: number;
  batches: number;
}

/** One wax or blend, with what the workshop's batches of it say. */
export interface WaxScore {
  wax: string;
  batches: number;
  /** Batches that came from a notebook. */
  fromNotes: number;
  jars: number;
  pour: UsedTemperature | null;
  add: UsedTemperature | null;
  /** Share of inspected jars without a flaw of the top, and without wet spots; with how many jars in how many batches. */
  smoothTops: (Share & { jars: number; batches: number }) | null;
  noWetSpots: (Share & { jars: number; batches: number }) | null;
  throws: Record<ThrowColumn, ScoredMean | null>;
  /** Wicks that a burn test passed, those of most tests first. */
  passedWicks: { wick: string; tests: number }[];
  /** What a kilogram costs by the lots on record, in minor units; null where a part of it has none. */
  costPerKg: number | null;
  /** The waxes whose lots the cost is of. */
  costOf: { id: string; name: string }[];
}

interface Row {
  wax: string;
  batches: number;
  notes: number;
  jars: number;
  pour: (number | null)[] | null;
  pours: number;
  adding: (number | null)[] | null;
  adds: number;
  tops: BatchSums;
  wet: BatchSums;
}

const used = (ends: (number | null)[] | null, batches: number): UsedTemperature | null => {
  const [low, middle, high] = ends ?? [];
  return low === undefined || low === null || middle == null || high == null ? null : { low, middle, high, batches };
};

/** Counts of each product of a batch: jars with a flaw of the top, and with wet spots. Goes with `o` as its outcome. */
const FLAWED = (workshopId: string) => {
  const seen = (defects: readonly string[]) => sql`sum(jars) filter (where defect in (${listed(defects.map((defect) => sql`${defect}`))}))`;
  return sql`(select batch_id, product, ${seen(TOP_FLAWS)} tops, ${seen([WALL_FLAW])} wet from outcome_flaw where workshop_id = ${workshopId} group by 1, 2)`;
};
const WITH_TOPS = sql`least(o.jars, coalesce(f.tops, 0))`;
const WITH_WET = sql`least(o.jars, coalesce(f.wet, 0))`;

/** Sums of the inspected batches of a wax, of how many of their jars are without a flaw. */
const CLEAN_SUMS = (
  clean: SQL,
) => sql`json_build_object('batches', count(*) filter (where n > 0), 'n', sum(n), 'k', sum(${clean}), 'kk', sum(${clean} * ${clean}), 'kn', sum(${clean} * n),
  'nn', sum(n * n), 'nnn', sum(n * n * n))`;

/** Returns the lines of the scoreboard without throw, over the outcomes of a period. */
async function waxRows(db: Database, workshopId: string, period: Period): Promise<Row[]> {
  // Jars that nobody inspected count for nothing where flaws are counted.
  const { rows } = await db.execute<Row & Record<string, unknown>>(sql`
    with f as ${FLAWED(workshopId)}, b as (
      select o.wax, o.batch_id, sum(o.jars)::float8 jars, avg(o.pour_c) pour, avg(o.add_c) adding, bool_or(noted.id is not null) noted,
        coalesce(sum(o.jars) filter (where o.looked), 0)::float8 n, coalesce(sum(o.jars - ${WITH_TOPS}) filter (where o.looked), 0)::float8 tops,
        coalesce(sum(o.jars - ${WITH_WET}) filter (where o.looked), 0)::float8 wet
      from outcome o left join batch noted on noted.workshop_id = o.workshop_id and noted.id = o.batch_id and noted.note_import_id is not null
        left join f on f.batch_id = o.batch_id and f.product = o.product
      where o.workshop_id = ${workshopId} and o.wax <> '' and ${within(period, sql`o.poured_at`)} group by 1, 2
    )
    select wax, count(*)::int batches, (count(*) filter (where noted))::int notes, sum(jars)::int jars,
      percentile_cont(array[0, 0.5, 1]) within group (order by pour) pour, count(pour)::int pours,
      percentile_cont(array[0, 0.5, 1]) within group (order by adding) adding, count(adding)::int adds,
      ${CLEAN_SUMS(sql`tops`)} tops, ${CLEAN_SUMS(sql`wet`)} wet
    from b group by wax order by 2 desc, 1`);
  return rows;
}

/** Returns what a kilogram of each wax costs by its lots, in minor units, by its name. */
async function waxCosts(db: Database, workshopId: string): Promise<ReadonlyMap<string, { id: string; name: string; cost: number }>> {
  const { rows } = await db.execute<{ id: string; name: string; cost: number }>(sql`
    select w.id::text, w.name, (sum(l.cost) * 1000000.0 / sum(l.amount))::float8 cost from lot l join wax w on w.workshop_id = l.workshop_id and w.id = l.material_id
    where l.workshop_id = ${workshopId} and l.kind = 'wax' and not l.withdrawn and l.cost is not null and l.amount > 0 group by 1, 2`);
  return new Map(rows.map((row) => [row.name, row]));
}

/** Returns the wicks that a burn test passed, by the wax they passed in. */
async function passedWicks(db: Database, workshopId: string): Promise<{ wax: string; wick: string; tests: number }[]> {
  const { rows } = await db.execute<{ wax: string; wick: string; tests: number }>(sql`
    select ${WAX_OF_BURN} wax, ${WICKS_OF_BURN} wick, count(*)::int tests
    from burn_outcome o ${WAX_OF_BATCH}
    where o.workshop_id = ${workshopId} and o.decided = 'passed' and not o.half and o.wick_name <> '' group by 1, 2 order by 3 desc, 2`);
  return rows;
}

/** Returns the column of throw that a row of `scoreRows` stands in: cold by age, hot by the size of the room; null where that is not known. @param rooms the workshop's rooms as text */
function throwColumn(rooms: string): SQL {
  const isIn = (size: Room["size"]) => {
    const names = roomsOf(rooms).filter((room) => room.size === size);
    return names.length === 0 ? sql`false` : sql`lower(room) in (${listed(names.map((room) => sql`${room.name.toLowerCase()}`))})`;
  };
  return sql`case when throw = 'cold' then case when age < 7 then 'coldYoung' when age is not null then 'coldOld' end
    when ${isIn("large")} then 'hotLarge' when ${isIn("small")} then 'hotSmall' end`;
}

/** Returns the scores of each wax in each column of throw, given within a period. @param rooms the workshop's rooms as text */
export async function throwSums(db: Database, workshop: { id: string; rooms: string }, period: Period = ALL_TIME): Promise<Record<ThrowColumn, WaxScores[]>> {
  const { rows } = await db.execute<Record<string, unknown> & BatchScore & { side: ThrowColumn }>(sql`
    select * from (select wax, batch, scorer, score, ${throwColumn(workshop.rooms)} side from (${scoreRows(workshop.id, { period })}) s where wax <> '') s where side is not null`);
  return Object.fromEntries(THROW_COLUMNS.map(({ key }) => [key, sumScores(rows.filter((row) => row.side === key))])) as Record<ThrowColumn, WaxScores[]>;
}

/** Returns one line for each wax or blend that was poured in a period, that of most batches first, and the scores that they rest on. @param rooms the workshop's rooms as text */
export async function waxScoreboard(
  db: Database,
  workshop: { id: string; rooms: string },
  period: Period = ALL_TIME,
): Promise<{ lines: WaxScore[]; scores: Record<ThrowColumn, WaxScores[]> }> {
  const [rows, costs, wicks, scores] = await Promise.all([
    waxRows(db, workshop.id, period),
    waxCosts(db, workshop.id),
    passedWicks(db, workshop.id),
    throwSums(db, workshop, period),
  ]);
  const means = (column: ThrowColumn) => scoresByWax(scores[column]);
  const throws = { coldYoung: means("coldYoung"), coldOld: means("coldOld"), hotSmall: means("hotSmall"), hotLarge: means("hotLarge") };
  const shareOf = (sums: BatchSums) => (sums.n > 0 ? { ...clusteredShare(sums), jars: sums.n, batches: sums.batches } : null);
  const costOf = (wax: string): Pick<WaxScore, "costPerKg" | "costOf"> => {
    const parts = partsOfBlendWords(wax).map(({ name, share }) => ({ share, lots: costs.get(name) }));
    const known = parts.flatMap(({ share, lots }) => (lots ? [{ ...lots, share }] : []));
    if (known.length < parts.length) return { costPerKg: null, costOf: [] };
    return { costPerKg: known.reduce((sum, part) => sum + part.share * part.cost, 0), costOf: known.map(({ id, name }) => ({ id, name })) };
  };
  const lines = rows.map((row) => ({
    wax: row.wax,
    batches: row.batches,
    fromNotes: row.notes,
    jars: row.jars,
    pour: used(row.pour, row.pours),
    add: used(row.adding, row.adds),
    smoothTops: shareOf(row.tops),
    noWetSpots: shareOf(row.wet),
    throws: {
      coldYoung: throws.coldYoung.get(row.wax) ?? null,
      coldOld: throws.coldOld.get(row.wax) ?? null,
      hotSmall: throws.hotSmall.get(row.wax) ?? null,
      hotLarge: throws.hotLarge.get(row.wax) ?? null,
    },
    passedWicks: wicks.filter((item) => item.wax === row.wax).map(({ wick, tests }) => ({ wick, tests })),
    ...costOf(row.wax),
  }));
  return { lines, scores };
}

/** The figures of a line that open to the batches they are of. */
export const OPENED_FIGURES = ["batches", "pour", "add", "tops", "wet", "coldYoung", "coldOld", "hotSmall", "hotLarge"] as const;
export type OpenedFigure = (typeof OPENED_FIGURES)[number];

/** A batch behind a figure, with its own value. */
export interface OpenedBatch {
  id: string;
  number: number;
  title: string;
  pouredAt: string;
  /** °C, a score, or how many of the jars are without the flaw. */
  value: number | null;
  of: number | null;
}

/** So many batches are listed; how many more there are is said. */
const MAX_OPENED = 200;

/** Returns the mean score of each batch of a wax in a column of throw. */
async function batchScores(
  db: Database,
  workshop: { id: string; rooms: string },
  column: ThrowColumn,
  wax: string,
  period: Period,
): Promise<ReadonlyMap<string, number>> {
  const { rows } = await db.execute<{ batch: string; score: number }>(sql`
    select batch, avg(score) score from (${scoreRows(workshop.id, { period })}) s where wax = ${wax} and ${throwColumn(workshop.rooms)} = ${column} group by 1`);
  return new Map(rows.map((row) => [row.batch, row.score]));
}

/** Returns the batches that a figure of a wax is of, the newest first, and how many there are in all. @param rooms the workshop's rooms as text */
export async function openedFigure(
  db: Database,
  workshop: { id: string; rooms: string },
  { wax, figure, period = ALL_TIME, most = MAX_OPENED }: { wax: string; figure: OpenedFigure; period?: Period; most?: number | undefined },
): Promise<{ batches: OpenedBatch[]; total: number }> {
  const column = THROW_COLUMNS.find((item) => item.key === figure)?.key;
  const scored = column ? await batchScores(db, workshop, column, wax, period) : null;
  const { rows } = await db.execute<{
    id: string;
    number: number;
    title: string;
    poured: string;
    pour: number | null;
    adding: number | null;
    jars: number;
    tops: number;
    wet: number;
    looked: boolean;
  }>(sql`
    select b.id::text, b.number, b.title, min(o.poured_at) poured, avg(o.pour_c)::float8 pour, avg(o.add_c)::float8 adding, sum(o.jars)::int jars, bool_or(o.looked) looked,
      sum(${WITH_TOPS})::int tops, sum(${WITH_WET})::int wet
    from outcome o join batch b on b.workshop_id = o.workshop_id and b.id = o.batch_id
      left join ${FLAWED(workshop.id)} f on f.batch_id = o.batch_id and f.product = o.product
    where o.workshop_id = ${workshop.id} and o.wax = ${wax} and ${within(period, sql`o.poured_at`)} group by b.id, b.number, b.title order by poured desc`);
  const all = rows.flatMap((row): OpenedBatch[] => {
    const head = { id: row.id, number: row.number, title: row.title, pouredAt: new Date(row.poured).toISOString() };
    const score = scored?.get(row.id);
    if (column) return score === undefined ? [] : [{ ...head, value: score, of: 10 }];
    if (figure === "tops" || figure === "wet") return row.looked ? [{ ...head, value: row.jars - row[figure], of: row.jars }] : [];
    if (figure === "batches") return [{ ...head, value: row.jars, of: null }];
    const celsius = figure === "pour" ? row.pour : row.adding;
    return celsius === null ? [] : [{ ...head, value: celsius, of: null }];
  });
  return { batches: all.slice(0, most), total: all.length };
}
