import { addedPpmOf, amountsFor, askedLoadOfWax, type FormulaSpec, materialsOf, WeighOutError } from "@hearth/core";
import { and, eq, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { molds, vessels, wicks } from "@/data/tables/shelf";
import type { Context } from "@/server/http/context";
import { readMaterials } from "@/server/inventory/shelf";
import { listProducts } from "@/server/products/products";
import { costsNow } from "@/server/sales/packing";
import { readFormula } from "./formulas";

/** What goes into one candle of a product, with its wick, what proves it, and what it costs. */
export interface CardCandle {
  productId: string;
  product: string;
  container: string;
  wick: string;
  wickTest: "tested" | "test due" | "failed";
  fillMg: number;
  /** By the id of the material: milligrams of one candle. */
  amounts: Record<string, number>;
  /** Of one pack, in minor units; null where no lot tells. */
  cost: number | null;
  pack: number;
}

/** One material of the recipe. Shares in millionths of the wax; drops to a pound of it where it is counted. */
export interface CardPart {
  id: string;
  kind: "wax" | "fragrance" | "additive" | "dye";
  name: string;
  ppm: number | null;
  perPound: { n: number; of: "drops" | "pieces" } | null;
}

export interface RecipeCard {
  id: string;
  name: string;
  number: number;
  spec: FormulaSpec;
  parts: CardPart[];
  candles: CardCandle[];
  /** The picture that shows it best: of a product, of the formula, else of the batch with the fewest flaws. */
  picture: { id: string; width: number; height: number } | null;
}

/** Scales that round nothing a card would show. */
const EXACT = { id: "exact", name: "exact", resolutionUg: 1_000 };

async function bestPicture(db: Database, workshopId: string, formulaId: string, productIds: readonly string[]): Promise<RecipeCard["picture"]> {
  const { rows } = await db.execute<{ id: string; width: number; height: number }>(sql`
    select p.id::text, p.width, p.height from picture p join note n on n.workshop_id = p.workshop_id and n.id = p.note_id
    left join batch b on n.kind = 'batch' and b.workshop_id = n.workshop_id and b.id = n.of_id
    where p.workshop_id = ${workshopId} and not n.deleted and (
      (n.kind = 'product' and n.of_id = any(${sql.param([...productIds])}::uuid[])) or (n.kind = 'formula' and n.of_id = ${formulaId}::uuid)
      or (n.kind = 'batch' and b.formula_ids @> array[${formulaId}::uuid]))
    order by case n.kind when 'product' then 0 when 'formula' then 1 else 2 end,
      (select coalesce(sum(f.jars), 0) from outcome_flaw f where f.workshop_id = n.workshop_id and f.batch_id = n.of_id), n.at desc, p.place limit 1`);
  return rows[0] ?? null;
}

/** Returns everything that stands on the card of a formula; null if it is not there. */
export async function recipeCard({ db, workshop }: Pick<Context, "workshop"> & { db: Database }, formulaId: string): Promise<RecipeCard | null> {
  const formula = await readFormula(db, workshop.id, formulaId);
  const newest = formula?.versions.reduce((best, version) => (version.number > best.number ? version : best));
  if (!formula || !newest) return null;
  const { spec } = newest;
  const [shelf, products] = await Promise.all([readMaterials(db, workshop.id), listProducts(db, workshop.id, formulaId)]);
  const sold = products.filter((product) => !product.archived);
  const [costs, allWicks, allVessels, allMolds, picture] = await Promise.all([
    costsNow(
      { db, workshop },
      sold.map((product) => product.id),
    ),
    db.select({ id: wicks.id, name: wicks.name }).from(wicks).where(eq(wicks.workshopId, workshop.id)),
    db.select({ id: vessels.id, name: vessels.name, fillMg: vessels.workingFillMg }).from(vessels).where(eq(vessels.workshopId, workshop.id)),
    db
      .select({ id: molds.id, name: molds.name, fillMg: molds.fillMg })
      .from(molds)
      .where(and(eq(molds.workshopId, workshop.id))),
    bestPicture(
      db,
      workshop.id,
      formulaId,
      sold.map((product) => product.id),
    ),
  ]);
  const amountsOf = (fillMg: number): Record<string, number> => {
    try {
      const { components } = amountsFor(spec, shelf, {
        fills: [{ name: "one", fillMg, count: 1 }],
        start: undefined,
        sparePpm: 0,
        scales: { wax: EXACT, oil: EXACT },
      });
      return Object.fromEntries(components.map((part) => [part.id, part.exactMg]));
    } catch (error) {
      if (error instanceof WeighOutError) return {};
      throw error;
    }
  };
  const candles = sold.flatMap((product): CardCandle[] => {
    const container = (product.container === "vessel" ? allVessels : allMolds).find((row) => row.id === product.containerId);
    if (!container) return [];
    const wick = allWicks.find((row) => row.id === product.wickId)?.name ?? "";
    return [
      {
        ...{ productId: product.id, product: product.name, container: container.name, fillMg: container.fillMg, wickTest: product.wickTest },
        wick: wick && product.wicks > 1 ? `${product.wicks} × ${wick}` : wick,
        amounts: amountsOf(container.fillMg),
        ...{ cost: costs.get(product.id) ?? null, pack: product.pack },
      },
    ];
  });
  const { waxes, fragrances, additives, dyes } = materialsOf(spec, shelf);
  const share = (parts: readonly { id: string; share: number }[], id: string) => {
    const all = parts.reduce((sum, part) => sum + part.share, 0) || 1;
    return (parts.find((part) => part.id === id)?.share ?? 0) / all;
  };
  const loadPpm = askedLoadOfWax(spec, addedPpmOf(spec));
  const whole = waxes.reduce((sum, part) => sum + part.share, 0) || 1;
  const parts: CardPart[] = [
    ...waxes.map(
      ({ wax, share: part }): CardPart => ({ id: wax.id, kind: "wax", name: wax.name, ppm: Math.round((part / whole) * 1_000_000), perPound: null }),
    ),
    ...fragrances.map(
      (oil): CardPart => ({ id: oil.id, kind: "fragrance", name: oil.name, ppm: Math.round(loadPpm * share(spec.fragrances, oil.id)), perPound: null }),
    ),
    ...additives.map(
      (item): CardPart => ({
        id: item.id,
        kind: "additive",
        name: item.name,
        ppm: spec.additives?.find((part) => part.id === item.id)?.ppm ?? 0,
        perPound: null,
      }),
    ),
    ...dyes.map((item): CardPart => {
      const dose = spec.dyes?.find((part) => part.id === item.id);
      return {
        ...{ id: item.id, kind: "dye" as const, name: item.name },
        ppm: dose?.by === "percent" ? Math.round(dose.amount * 10_000) : null,
        perPound: dose && dose.by !== "percent" ? { n: dose.amount, of: dose.by } : null,
      };
    }),
  ];
  return { id: formula.id, name: formula.name, number: newest.number, spec, parts, candles, picture };
}
