import { type BurnedCombination, bestTests, type Combination, isSameCombination, loadOnBasis, materialsOf, type Proof, proofOf, waxWords } from "@hearth/core";
import { and, eq, isNotNull, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { products } from "@/data/tables/product";
import { molds, vessels, wicks } from "@/data/tables/shelf";
import { readMaterials } from "@/server/inventory/shelf";
import { newestSpecs } from "@/server/products/products";
import { WAX_OF_BATCH, WAX_OF_BURN } from "./throw-scores";

/** A combination on the grid: one that is on sale, or one that was burned. */
export interface ProvenLine extends Combination, Proof {
  /** The product that is sold so; null of a combination that was only burned. */
  product: { id: string; name: string } | null;
}

export interface ProvenGrid {
  /** What is on sale without a pass of its own, those that nothing is inferred for first. */
  onSale: ProvenLine[];
  lines: ProvenLine[];
  /** The two tests of what is on sale that would prove most, and how many products a pass would cover. */
  best: { tests: ProvenLine[]; covered: number };
}

/** So many unproven products take part in choosing two tests: every pair of them is tried. */
const MAX_OPEN = 200;

/** Returns every burn of a full candle that was decided, the newest first. */
async function burnedCombinations(db: Database, workshopId: string): Promise<BurnedCombination[]> {
  const { rows } = await db.execute<{
    vessel: string;
    wax: string;
    family: string;
    wick: string;
    wicks: number;
    scent: string;
    load: number;
    decided: "passed" | "failed";
    trial: string;
  }>(sql`
    select distinct on (t.started_at, o.trial_id, o.variant) o.vessel, ${WAX_OF_BURN} wax, o.family, o.wick_name wick, o.wicks, o.scent, o.load_ppm::float8 load, o.decided, o.trial_id::text trial
    from burn_outcome o join trial t on t.workshop_id = o.workshop_id and t.id = o.trial_id
      ${WAX_OF_BATCH}
    where o.workshop_id = ${workshopId} and o.decided <> '' and not o.half and o.wick_name <> '' order by t.started_at desc, o.trial_id, o.variant`);
  return rows.map(({ load, trial, ...row }) => ({ ...row, loadPpm: load, trialId: trial }));
}

/** Returns the combinations that are on sale: products with a wick, as their formulas are now. */
async function soldCombinations(db: Database, workshopId: string): Promise<(Combination & { product: { id: string; name: string } })[]> {
  const rows = await db
    .select()
    .from(products)
    .where(and(eq(products.workshopId, workshopId), eq(products.archived, false), isNotNull(products.wickId)));
  const [specs, shelf, allWicks, allVessels, allMolds] = await Promise.all([
    newestSpecs(db, workshopId, [...new Set(rows.map((row) => row.formulaId))]),
    readMaterials(db, workshopId),
    db.select({ id: wicks.id, name: wicks.name }).from(wicks).where(eq(wicks.workshopId, workshopId)),
    db.select({ id: vessels.id, name: vessels.name }).from(vessels).where(eq(vessels.workshopId, workshopId)),
    db.select({ id: molds.id, name: molds.name }).from(molds).where(eq(molds.workshopId, workshopId)),
  ]);
  const nameOf = (all: readonly { id: string; name: string }[], id: string | null) => all.find((row) => row.id === id)?.name ?? "";
  return rows.flatMap((row) => {
    const spec = specs.get(row.formulaId);
    if (!spec) return [];
    const { named, fragrances } = materialsOf(spec, shelf);
    return [
      {
        product: { id: row.id, name: row.name },
        vessel: nameOf(row.container === "vessel" ? allVessels : allMolds, row.containerId),
        wax: waxWords(spec, shelf),
        family: named[0]?.family ?? "",
        wick: nameOf(allWicks, row.wickId),
        wicks: row.wicks,
        scent: fragrances.map((oil) => oil.name).join(" + "),
        // As test candles have it.
        loadPpm: fragrances.length > 0 ? loadOnBasis(spec.loadPpm, spec.basis, "wax") : 0,
      },
    ];
  });
}

/** Returns what is proven by the workshop's own burns, what is inferred from them, and what is on sale without either. */
export async function provenGrid(db: Database, workshopId: string): Promise<ProvenGrid> {
  const [burns, sold] = await Promise.all([burnedCombinations(db, workshopId), soldCombinations(db, workshopId)]);
  const lines: ProvenLine[] = sold.map((item) => ({ ...item, ...proofOf(item, burns) }));
  for (const burn of burns) {
    if (lines.some((line) => isSameCombination(line, burn))) continue;
    const { decided: _decided, trialId: _trialId, ...combination } = burn;
    lines.push({ ...combination, product: null, ...proofOf(burn, burns) });
  }
  const order = { failed: 0, unproven: 1, inferred: 2, proven: 3 };
  const onSale = lines.filter((line) => line.product && line.status !== "proven").sort((a, b) => order[a.status] - order[b.status]);
  const open = onSale.filter((line) => line.status === "unproven").slice(0, MAX_OPEN);
  const best = bestTests(open);
  return { onSale, lines, best: { tests: best.tests.flatMap((index) => open[index] ?? []), covered: best.covered.length } };
}
