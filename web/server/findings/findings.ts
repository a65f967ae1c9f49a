import { type BatchSums, clusteredShare, DEFECTS, type Dose, type Factor, type FoundFactor, findFactors, type Level, logistic, type Share } from "@hearth/core";
import { group, rollup } from "d3-array";
import { type SQL, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { ALL_TIME, type Period, within } from "@/server/http/period";

/** What a flaw is compared by. `of` gives the level of a row, as text; null if it was not recorded. */
interface FactorSource {
  name: string;
  words: string;
  of: SQL;
}
const side = (column: SQL) => sql`case ${column} when -1 then 'below the range' when 0 then 'inside the range' when 1 then 'above the range' end`;
const steps = (column: SQL, by: number, unit: string) =>
  sql`(floor(${column} / ${by}::float8) * ${by}::float8)::int::text || ' to ' || (floor(${column} / ${by}::float8) * ${by}::float8 + ${by}::float8)::int::text || ${` ${unit}`}::text`;

/** Everything that is looked at beside a flaw. A further one is a line here and a column of `outcome`. */
export const FACTORS: readonly FactorSource[] = [
  { name: "pour", words: "pour temperature", of: side(sql`o.pour_side`) },
  { name: "add", words: "add temperature", of: side(sql`o.add_side`) },
  { name: "load", words: "real load", of: steps(sql`o.load`, 2, "% of the wax") },
  { name: "room", words: "room", of: steps(sql`o.room_c`, 4, "°C") },
  { name: "warmed", words: "vessels warmed", of: sql`case when o.warmed is null then null when o.warmed = 'no' then 'not warmed' else 'warmed' end` },
  { name: "halves", words: "pours", of: sql`case o.halves when true then 'two pours' when false then 'one pour' end` },
  { name: "stir", words: "stirring", of: sql`case when o.stir_minutes < 1.9 then 'under 2 min' when o.stir_minutes is not null then '2 min or more' end` },
  {
    name: "cure",
    words: "age when looked at",
    of: sql`case when o.cure_days < 2 then 'within 2 days' when o.cure_days < 7 then '2 to 7 days' when o.cure_days is not null then 'a week or more' end`,
  },
  { name: "vessel", words: "vessel", of: sql`o.vessel` },
  { name: "wax", words: "wax", of: sql`o.wax` },
  { name: "formula", words: "formula", of: sql`o.formula` },
  { name: "process", words: "process", of: sql`o.process` },
  { name: "instrument", words: "thermometer", of: sql`o.instrument_id::text` },
  { name: "person", words: "who poured", of: sql`o.person_id::text` },
];
/** Returns a list of SQL values, separated by commas. */
export const listed = (parts: readonly (SQL | Name)[]): SQL =>
  sql.join(
    parts.map((part) => sql`${part}`),
    sql`, `,
  );
type Name = ReturnType<typeof sql.identifier>;
/** Returns the level of each row at each of these factors, under the factor's name. */
export const levelColumns = (factors: readonly FactorSource[]): SQL => listed(factors.map((factor) => sql`${factor.of} as ${sql.identifier(factor.name)}`));
export const factorOf = (name: string): FactorSource | undefined => FACTORS.find((factor) => factor.name === name);

/** Looked-over batches of a workshop, poured in a period, with how many of their jars show a flaw. */
const rowsOf = (workshopId: string, defect: string, period: Period) => sql`
  select o.*, least(o.jars, coalesce(f.jars, 0))::float8 k
  from outcome o left join outcome_flaw f
    on f.workshop_id = o.workshop_id and f.batch_id = o.batch_id and f.product = o.product and f.defect = ${defect}
  where o.workshop_id = ${workshopId} and o.looked and o.jars > 0 and ${within(period, sql`o.poured_at`)}`;

/** Of batches, each once: its products were poured together and are alike, so that they are no batches of their own. */
export const SUMS = sql`count(*)::int batches, sum(b.n)::float8 n, sum(b.k)::float8 k, sum(b.k * b.k)::float8 kk, sum(b.k * b.n)::float8 kn,
  sum(b.n * b.n)::float8 nn, sum(b.n * b.n * b.n)::float8 nnn`;
const OF_BATCH = sql`o.batch_id, sum(o.jars)::float8 n, sum(o.k)::float8 k`;
/** As a row of the database. */
type SumsRow = { [K in keyof BatchSums]: number };
const sumsOfRow = ({ batches, n, k, kk, kn, nn, nnn }: BatchSums): BatchSums => ({ batches, n, k, kk, kn, nn, nnn });

/** How often a flaw was seen: jars with it of all that were inspected, in how many batches, with its likely range. */
export interface FlawRate extends Share {
  defect: string;
  name: string;
  jars: number;
  of: number;
  batches: number;
}

/** Returns how often each flaw was seen, most often first. */
export async function flawRates(db: Database, workshopId: string, period: Period = ALL_TIME): Promise<FlawRate[]> {
  const { rows } = await db.execute<{ defect: string; with_flaw: number } & SumsRow>(sql`
    with o as materialized (
      select batch_id, product, jars from outcome o where workshop_id = ${workshopId} and looked and jars > 0 and ${within(period, sql`o.poured_at`)}
    ), sizes as (select batch_id, sum(jars)::float8 n from o group by 1),
    whole as (select count(*)::int batches, sum(n) n, sum(n * n) nn, sum(n * n * n) nnn from sizes),
    flawed as (
      select f.defect, o.batch_id, sum(least(f.jars, o.jars))::float8 k
      from o join outcome_flaw f on f.workshop_id = ${workshopId} and f.batch_id = o.batch_id and f.product = o.product group by 1, 2
    )
    select f.defect, count(*)::int with_flaw, w.batches, w.n, sum(f.k) k, sum(f.k * f.k) kk, sum(f.k * s.n) kn, w.nn, w.nnn
    from flawed f join sizes s using (batch_id) cross join whole w
    group by f.defect, w.batches, w.n, w.nn, w.nnn order by 5 desc, 1`);
  return rows.flatMap((row) => {
    const known = DEFECTS.find((defect) => defect.id === row.defect);
    return known ? [{ defect: known.id, name: known.name, jars: row.k, of: row.n, batches: row.with_flaw, ...clusteredShare(sumsOfRow(row)) }] : [];
  });
}

/** How often flaws were seen at the levels of a factor. */
export interface FlawsByLevel {
  /** The levels, that of most batches first, with how many batches have them. */
  levels: { level: string; batches: number }[];
  /** The flaws that were seen, most often first. */
  defects: { defect: string; name: string }[];
  /** Returns the share of a flaw at a level; null at a level without batches. */
  at: (defect: string, level: string) => (BatchSums & Share) | null;
}

/** Returns how often every flaw was seen at every level of a factor, counted in one pass. */
export async function flawsByLevel(db: Database, workshopId: string, of: SQL, period: Period): Promise<FlawsByLevel> {
  const { rows } = await db.execute<{ level: string; defect: string | null } & SumsRow>(sql`
    with o as materialized (
      select batch_id, product, jars, ${of} as level from outcome o where workshop_id = ${workshopId} and looked and jars > 0 and ${within(period, sql`o.poured_at`)}
    ), sizes as (select batch_id, level, sum(jars)::float8 n from o where level is not null group by 1, 2),
    whole as (select level, count(*)::int batches, sum(n) n, sum(n * n) nn, sum(n * n * n) nnn from sizes group by 1),
    flawed as (
      select f.defect, o.level, o.batch_id, sum(least(f.jars, o.jars))::float8 k
      from o join outcome_flaw f on f.workshop_id = ${workshopId} and f.batch_id = o.batch_id and f.product = o.product group by 1, 2, 3
    ), sums as (select f.defect, f.level, sum(f.k) k, sum(f.k * f.k) kk, sum(f.k * s.n) kn from flawed f join sizes s using (batch_id, level) group by 1, 2)
    select w.level, u.defect, w.batches, w.n, coalesce(u.k, 0) k, coalesce(u.kk, 0) kk, coalesce(u.kn, 0) kn, w.nn, w.nnn
    from whole w left join sums u using (level) order by w.batches desc, w.level`);
  const byLevel = group(rows, (row) => row.level);
  const seen = rollup(
    rows,
    (list) => list.reduce((sum, row) => sum + row.k, 0),
    (row) => row.defect ?? "",
  );
  return {
    levels: [...byLevel].map(([level, [row]]) => ({ level, batches: row?.batches ?? 0 })),
    defects: DEFECTS.filter(({ id }) => (seen.get(id) ?? 0) > 0)
      .sort((a, b) => (seen.get(b.id) ?? 0) - (seen.get(a.id) ?? 0))
      .map(({ id, name }) => ({ defect: id, name })),
    at: (defect, level) => {
      const there = byLevel.get(level);
      const [any] = there ?? [];
      if (!there || !any) return null;
      const sums = sumsOfRow(there.find((row) => row.defect === defect) ?? { ...any, k: 0, kk: 0, kn: 0 });
      return { ...sums, ...clusteredShare(sums) };
    },
  };
}

/** Returns whether mending held, at a second look, by how it was done, of one flaw: n is what was mended, k what held. */
export async function repairsOf(db: Database, workshopId: string, defect: string, period: Period = ALL_TIME): Promise<(Level & Share)[]> {
  const { rows } = await db.execute<{ level: string } & SumsRow>(sql`
    select level, ${SUMS} from (
      select r->>'how' level, o.batch_id, sum((r->>'jars')::int)::float8 n, sum((r->>'held')::int)::float8 k
      from outcome o, jsonb_array_elements(o.repairs) r
      where o.workshop_id = ${workshopId} and o.repairs <> '[]'::jsonb and r->>'defect' = ${defect} and ${within(period, sql`o.poured_at`)}
      group by 1, 2
    ) b where b.n > 0 group by level order by 3 desc, 1`);
  return rows.map((row) => ({ level: row.level, ...sumsOfRow(row), ...clusteredShare(row) }));
}

/** The most levels of one factor that are told apart. */
const MAX_LEVELS = 12;

/** Levels of every factor for one flaw, in one pass over the rows. */
async function levelsOf(db: Database, workshopId: string, defect: string, period: Period): Promise<Factor[]> {
  const names = FACTORS.map((factor) => sql.identifier(factor.name));
  // In each grouping set one factor has a level, and the others are null.
  const { rows } = await db.execute<{ which: number; level: string } & SumsRow>(sql`
    with r as (${rowsOf(workshopId, defect, period)}), o as materialized (select o.batch_id, o.jars, o.k, ${levelColumns(FACTORS)} from r o)
    select which, level, ${SUMS} from (
      select coalesce(${listed(names)}) level, grouping(${listed(names)})::int which, ${OF_BATCH}
      from o group by grouping sets (${listed(names.map((name) => sql`(o.batch_id, ${name})`))})
    ) b where level is not null group by which, level`);
  const all = 2 ** FACTORS.length - 1;
  return FACTORS.map(({ name, words }, index) => {
    const bit = all - 2 ** (FACTORS.length - 1 - index);
    const levels = rows
      .filter((row) => row.which === bit)
      .map((row) => ({ level: row.level, ...sumsOfRow(row) }))
      .sort((a, b) => b.n - a.n)
      .slice(0, MAX_LEVELS);
    return { name, words, levels } as Factor;
  });
}

/**
 * Of two factors that always changed together nothing can tell which it was: by name, those that cannot be told from each. Only
 * factors with as many levels can be such: the pairs of these are counted, in one pass.
 */
async function togetherWith(
  db: Database,
  workshopId: string,
  defect: string,
  period: Period,
  found: readonly FoundFactor[],
): Promise<Record<string, string[]>> {
  const many = (factor: FoundFactor) => factor.levels.length;
  const pairs = found
    .filter((factor) => factor.finding === "differs")
    .flatMap((a) => found.filter((b) => b.name !== a.name && many(b) > 1 && many(a) === many(b)).map((b) => [a.name, b.name] as const));
  if (pairs.length === 0) return {};
  const used = [...new Set(pairs.flat())];
  const names = used.map((name) => sql.identifier(name));
  // Each pair is counted once, whichever of the two it was asked for.
  const sets = pairs
    .filter(([a, b], index) => pairs.findIndex(([x, y]) => (x === a && y === b) || (x === b && y === a)) === index)
    .map(([a, b]) => sql`(${sql.identifier(a)}, ${sql.identifier(b)})`);
  const { rows } = await db.execute<Record<string, string | null> & { which: number }>(sql`
    with r as (${rowsOf(workshopId, defect, period)}), o as materialized (select ${levelColumns(FACTORS.filter((factor) => used.includes(factor.name)))} from r o)
    select ${listed(names)}, grouping(${listed(names)})::int which from o group by grouping sets (${listed(sets)})`);
  const bitOf = (name: string) => 2 ** (used.length - 1 - used.indexOf(name));
  const all = 2 ** used.length - 1;
  const out: Record<string, string[]> = {};
  for (const [a, b] of pairs) {
    const mine = rows.filter((row) => row.which === all - bitOf(a) - bitOf(b) && row[a] !== null && row[b] !== null);
    const [x, y] = [new Set(mine.map((row) => row[a])).size, new Set(mine.map((row) => row[b])).size];
    // Each level of the one came with one level of the other, and both were varied.
    if (x > 1 && mine.length === x && mine.length === y) out[a] = [...(out[a] ?? []), b];
  }
  return out;
}

export interface FoundWithWords extends FoundFactor {
  words: string;
  /** Other factors that always changed together with it. */
  together: string[];
}

/** Returns what every factor says of a flaw: what differs first, and of these the largest difference first. */
export async function findingsOf(db: Database, workshopId: string, defect: string, period: Period = ALL_TIME): Promise<FoundWithWords[]> {
  const found = findFactors(await levelsOf(db, workshopId, defect, period));
  const together = await togetherWith(db, workshopId, defect, period, found);
  const names = await namesOf(db, workshopId);
  const order = { differs: 0, "no difference seen": 1, "too little to tell": 2, "never varied": 3 };
  return found
    .map((factor) => ({
      ...factor,
      words: factorOf(factor.name)?.words ?? factor.name,
      levels: factor.levels.map((level) => ({ ...level, level: names.get(level.level) ?? level.level })),
      together: (together[factor.name] ?? []).map((other) => factorOf(other)?.words ?? other),
    }))
    .sort((a, b) => order[a.finding] - order[b.finding] || (b.difference ?? 0) - (a.difference ?? 0));
}

/** People and thermometers by their ids. */
export async function namesOf(db: Database, workshopId: string): Promise<Map<string, string>> {
  const { rows } = await db.execute<{ id: string; name: string }>(
    sql`select id::text, name from person where workshop_id = ${workshopId} union all select id::text, name from instrument where workshop_id = ${workshopId}`,
  );
  return new Map(rows.map((row) => [row.id, row.name]));
}

/** Numbers against which a flaw's rate is drawn as a curve. */
export const CURVES = {
  pour_c: { words: "poured at", unit: "°C", column: sql`o.pour_c`, step: 1 },
  add_c: { words: "fragrance added at", unit: "°C", column: sql`o.add_c`, step: 1 },
  load: { words: "real load", unit: "%", column: sql`o.load`, step: 0.5 },
  room_c: { words: "room", unit: "°C", column: sql`o.room_c`, step: 1 },
} as const;
export type CurveName = keyof typeof CURVES;

export interface FlawCurve {
  name: CurveName;
  /** The formula whose batches it is of, and those that can be chosen. Formulas differ in more than one thing, so a curve is of one. */
  formula: string;
  formulas: string[];
  doses: (Dose & { batches: number })[];
  /** Points of the fitted curve; none if there is too little, or nothing varied. */
  fit: { x: number; share: number; low: number; high: number }[];
  odds: { value: number; low: number; high: number } | null;
  p: number | null;
  why: string | null;
}

/** Fewer batches draw no curve. */
const MIN_FOR_CURVE = 8;

/**
 * A flaw's rate against a number, of batches of one formula: the one that is asked for, or else the one with most of them. Grouped to
 * whole steps, with a logistic curve where there is enough for one.
 */
export async function curveOf(
  db: Database,
  workshopId: string,
  defect: string,
  name: CurveName,
  { period = ALL_TIME, formula: asked }: { period?: Period; formula?: string | undefined } = {},
): Promise<FlawCurve> {
  const { column, step } = CURVES[name];
  const { rows: names } = await db.execute<{ formula: string }>(sql`
    select formula from outcome o where workshop_id = ${workshopId} and looked and jars > 0 and ${column} is not null and ${within(period, sql`o.poured_at`)}
    group by 1 order by count(distinct batch_id) desc, 1`);
  const formulas = names.map((row) => row.formula);
  const formula = asked && formulas.includes(asked) ? asked : (formulas[0] ?? "");
  const { rows } = await db.execute<{ x: number } & SumsRow>(sql`
    with o as (${rowsOf(workshopId, defect, period)})
    select x, ${SUMS} from (
      select (round(${column} / ${step}::float8) * ${step}::float8)::float8 x, ${OF_BATCH}
      from o where ${column} is not null and o.formula = ${formula} group by 1, o.batch_id
    ) b group by x order by x`);
  const batches = rows.reduce((sum, row) => sum + row.batches, 0);
  const doses = rows.map(({ x, n, k, batches: many }) => ({ x, n, k, batches: many }));
  const none = { name, formula, formulas, doses, fit: [], odds: null, p: null };
  if (batches < MIN_FOR_CURVE) return { ...none, why: `Too little to tell: ${batches} batches, and ${MIN_FOR_CURVE} are needed for a curve.` };
  const fitted = logistic(rows);
  if (!fitted) return { ...none, why: "It was never varied, or the flaw was on none or on all." };
  const [from, to] = [doses[0]?.x ?? 0, doses.at(-1)?.x ?? 0];
  const fit = Array.from({ length: 41 }, (_, index) => {
    const x = from + ((to - from) * index) / 40;
    return { x, ...fitted.at(x) };
  });
  return { ...none, fit, odds: fitted.odds, p: fitted.p, why: null };
}

/** Returns how often a flaw was seen at each level of one factor: the workshop's own history beside a cause. */
export async function historyOf(db: Database, workshopId: string, defect: string, factor: string, period: Period = ALL_TIME): Promise<FoundFactor | null> {
  const source = factorOf(factor);
  if (!source) return null;
  const { rows } = await db.execute<{ level: string } & SumsRow>(sql`
    with o as (${rowsOf(workshopId, defect, period)})
    select level, ${SUMS} from (select ${source.of} level, ${OF_BATCH} from o where ${source.of} is not null group by 1, o.batch_id) b
    group by level order by 3 desc limit ${MAX_LEVELS}`);
  return findFactors([{ name: factor, levels: rows.map((row) => ({ level: row.level, ...sumsOfRow(row) })) }])[0] ?? null;
}
