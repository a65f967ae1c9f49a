import { type BatchPlan, blendWords, contentsOf, DEFECTS, type Dose, type Threshold, thresholdOf } from "@hearth/core";
import { sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { SUMS } from "./findings";

/** What the workshop's own batches of a wax say of its pour temperature. */
export interface PourFinding extends Threshold {
  /** As outcomes name it: "soft soy", or the waxes of a blend. */
  wax: string;
  flaw: string;
}

/** So many flaws are looked at, those seen most often first; a chance is multiplied by their number. */
const MAX_FLAWS = 8;
/** A difference is as unlikely as this by chance, or it is not told. */
const LEVEL = 0.05;

/**
 * Returns the flaw that the pour temperature decides most in inspected batches of the same wax, with the temperature in °C that divides them; null where
 * no flaw is told from chance, all comparisons allowed for.
 */
export async function pourFinding(db: Database, workshopId: string, plan: BatchPlan): Promise<PourFinding | null> {
  const wax = blendWords(contentsOf(plan, 0));
  const { rows } = await db.execute<Required<Dose> & { defect: string } & Record<string, unknown>>(sql`
    with o as materialized (
      select batch_id, product, jars::float8 jars, round(pour_c)::float8 x from outcome
      where workshop_id = ${workshopId} and looked and jars > 0 and pour_c is not null and wax = ${wax}
    ), sizes as (select batch_id, min(x) x, sum(jars) n from o group by 1),
    flawed as (
      select f.defect, o.batch_id, sum(least(f.jars, o.jars))::float8 k
      from o join outcome_flaw f on f.workshop_id = ${workshopId} and f.batch_id = o.batch_id and f.product = o.product group by 1, 2
    ), seen as (select defect from flawed group by 1 order by sum(k) desc, 1 limit ${MAX_FLAWS})
    select defect, x, ${SUMS} from (
      select seen.defect, s.x, s.n, coalesce(f.k, 0) k from seen cross join sizes s left join flawed f on f.defect = seen.defect and f.batch_id = s.batch_id
    ) b group by defect, x order by defect, x`);
  const defects = [...new Set(rows.map((row) => row.defect))];
  const found = defects.flatMap((defect): PourFinding[] => {
    const threshold = thresholdOf(rows.filter((row) => row.defect === defect));
    const name = DEFECTS.find((known) => known.id === defect)?.name;
    return threshold && name && threshold.p * defects.length < LEVEL ? [{ ...threshold, wax, flaw: name }] : [];
  });
  const difference = (item: PourFinding) => item.flawed / item.of - item.otherFlawed / item.otherOf;
  return found.sort((a, b) => difference(b) - difference(a))[0] ?? null;
}
