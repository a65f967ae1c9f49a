import { bandsOf, type IndividualsChart, individuals, readFormula } from "@hearth/core";
import { sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { ALL_TIME, type Period, within } from "@/server/http/period";

/** What a maker controls, and sees drift. */
export const CHARTED = {
  pour_c: { words: "pour temperature", column: sql`o.pour_c` },
  add_c: { words: "add temperature", column: sql`o.add_c` },
  load: { words: "real load, % of the wax", column: sql`o.load` },
  fill: { words: "fill weight, % of planned", column: sql`100 * o.fill_mg / nullif(o.planned_mg, 0)` },
} as const;
export type Charted = keyof typeof CHARTED;

export interface RunChart {
  of: Charted;
  formula: string;
  formulas: string[];
  points: { id: string; number: number; at: string; value: number }[];
  chart: IndividualsChart | null;
  /** What it should lie in, where the formula says. */
  range: [number, number] | null;
}

/** Returns the batches of a formula in a span of time, one value each, with the limits that they set themselves. */
export async function runChart(db: Database, workshopId: string, of: Charted, asked: string | undefined, period: Period = ALL_TIME): Promise<RunChart> {
  const { rows: names } = await db.execute<{ formula: string }>(
    sql`select formula from outcome where workshop_id = ${workshopId} group by 1 order by count(*) desc, 1`,
  );
  const formulas = names.map((row) => row.formula);
  const formula = asked && formulas.includes(asked) ? asked : (formulas[0] ?? "");
  const { rows } = await db.execute<{ id: string; number: number; at: string; value: number }>(sql`
    select b.id::text, b.number, max(o.poured_at) at, avg(${CHARTED[of].column})::float8 "value"
    from outcome o join batch b on b.workshop_id = o.workshop_id and b.id = o.batch_id
    where o.workshop_id = ${workshopId} and o.formula = ${formula} and ${CHARTED[of].column} is not null and ${within(period, sql`o.poured_at`)}
    group by b.id, b.number order by 3, 2`);
  const points = rows.map((row) => ({ ...row, at: new Date(row.at).toISOString() }));
  return { of, formula, formulas, points, chart: individuals(points.map((point) => point.value)), range: await rangeOf(db, workshopId, of, formula) };
}

async function rangeOf(db: Database, workshopId: string, of: Charted, formula: string): Promise<[number, number] | null> {
  if (of === "fill") return null;
  const { rows } = await db.execute<{ spec: unknown }>(sql`
    select v.spec from formula f join formula_version v on v.workshop_id = f.workshop_id and v.formula_id = f.id
    where f.workshop_id = ${workshopId} and f.name = ${formula} order by v.number desc limit 1`);
  if (!rows[0]) return null;
  const spec = readFormula(rows[0].spec);
  if (of === "load") return null;
  const band = bandsOf(spec.process).find((band) => band.name === (of === "pour_c" ? "pour" : "add"));
  return band ? [band.range.low / 100, band.range.high / 100] : null;
}
