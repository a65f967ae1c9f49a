import {
  type CandleMade,
  type FormulaSpec,
  isSameCandle,
  LARGE_VESSEL_MG,
  limitsOf,
  loadOnBasis,
  materialsOf,
  nextRung,
  type Room,
  type Rung,
  roomsFilled,
  roomsOf,
  rungsOf,
  type ScoredCandle,
  SECONDS,
  seriesOf,
  timesOf,
  waxWords,
  wicksSuiting,
} from "@hearth/core";
import { and, eq, sql } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { molds, vessels, wicks } from "@/data/tables/shelf";
import { throwScores, WAX_OF_BATCH, WAX_OF_BURN, WICKS_OF_BURN } from "@/server/burn/throw-scores";
import { formulaForPlan } from "@/server/formulas/formulas";
import { readMaterials, type ShelfMaterials } from "@/server/inventory/shelf";
import { type Product, readProduct } from "./products";

/** What the next rung can be poured with: each is one change of the candle, the first is offered. */
export interface RungChoice {
  /** Names the choice: what it changes, and to what. */
  value: string;
  label: string;
  change: { loadPpm: number } | { waxId: string } | { fragranceId: string } | { containerId: string; wickId: string | null } | { wickId: string };
}

export interface ThrowLadder {
  product: Product;
  made: CandleMade;
  rungs: Rung[];
  next: { id: string; says: string } | null;
  choices: RungChoice[];
  /** Rungs before it that nothing on the shelf does for. */
  without: { id: string; says: string }[];
  rooms: readonly Room[];
  /** The rooms that its scores say it fills. */
  filled: string[];
  formulaVersionId: string;
}

/** So many choices of a rung are offered. */
const MAX_CHOICES = 12;

/** Returns the hot throw scores of candles of a product: those of its trials, and of batches of its formula in its container. */
async function scoresOf(db: Database | Transaction, workshopId: string, product: Product): Promise<ScoredCandle[]> {
  const { rows } = await db.execute<{
    at: string;
    scorer: string | null;
    room: string;
    score: number;
    wax: string;
    scent: string;
    load: number;
    vessel: string;
    wick: string;
    age: number | null;
  }>(sql`
    select r ->> 'at' as at, r ->> 'scorer' scorer, r ->> 'room' room, (r ->> 'score')::float8 score, ${WAX_OF_BURN} wax, o.scent, o.load_ppm::float8 load, o.vessel, ${WICKS_OF_BURN} wick,
      extract(epoch from (r ->> 'at')::timestamptz - b.poured_at)::float8 / 86400 age
    from trial t cross join lateral jsonb_array_elements(t.state -> 'ratings') r
      join burn_outcome o on o.workshop_id = t.workshop_id and o.trial_id = t.id and o.test_candle = r ->> 'testCandle'
      left join batch b on b.workshop_id = o.workshop_id and b.id = o.batch_id
      ${WAX_OF_BATCH}
    where t.workshop_id = ${workshopId} and r ->> 'throw' = 'hot' and t.state ->> 'codesRevealedAt' is not null and not o.half
      and (o.product_id = ${product.id}::uuid or b.formula_ids @> array[${product.formulaId}::uuid]) order by 1`);
  return rows.map((row) => ({ ...row, at: new Date(row.at).toISOString(), loadPpm: row.load, ageDays: row.age }));
}

/** Returns whether soot was seen on a candle of the product in a burn. */
async function isSooty(db: Database | Transaction, workshopId: string, product: Product): Promise<boolean> {
  const { rows } = await db.execute<{ sooty: boolean }>(sql`
    select exists (select 1 from burn_outcome o join trial t on t.workshop_id = o.workshop_id and t.id = o.trial_id
      where o.workshop_id = ${workshopId} and o.product_id = ${product.id}::uuid and o.wick_id is not distinct from ${product.wickId}::uuid
        and jsonb_path_exists(t.state -> 'testCandles' -> o.test_candle, '$.sessions[*].checks[*].soot ? (@ != "none")')) sooty`);
  return rows[0]?.sooty === true;
}

interface Shelf {
  materials: ShelfMaterials;
  wicks: (typeof wicks.$inferSelect)[];
  vessels: (typeof vessels.$inferSelect)[];
}

/** Returns what the next rung can be poured with, what the workshop's own scores speak for first. */
async function choicesOf(
  db: Database | Transaction,
  workshopId: string,
  shelf: Shelf,
  {
    id,
    product,
    spec,
    loadPpm,
    maxLoadPpm,
    family,
  }: { id: string; product: Product; spec: FormulaSpec; loadPpm: number; maxLoadPpm: number | null; family: string },
): Promise<RungChoice[]> {
  const load = (ppm: number): RungChoice[] => [{ value: `load ${ppm}`, label: `a fragrance load of ${ppm / 10_000} % of the wax`, change: { loadPpm: ppm } }];
  const capped = (ppm: number) => Math.min(ppm, maxLoadPpm ?? ppm);
  if (id === "load_8") return load(capped(80_000));
  if (id === "load_10") return load(capped(loadPpm + 20_000));
  if (id === "load_down") return load(Math.max(10_000, loadPpm - 20_000));
  const scores = await throwScores(db as Database, workshopId, { of: "hot" });
  const meanBy = (of: "wax" | "oil", name: string) => {
    const mine = scores.filter((score) => score[of] === name);
    return mine.length > 0 ? mine.reduce((sum, score) => sum + score.score, 0) / mine.length : 0;
  };
  if (id === "oil") {
    const strength = (of: string | null) => (of === "strong" ? 2 : of === "middling" ? 1 : 0);
    return shelf.materials.fragrances
      .filter((oil) => !oil.archived && !spec.fragrances.some((part) => part.id === oil.id))
      .sort((a, b) => strength(b.strength) - strength(a.strength) || meanBy("oil", b.name) - meanBy("oil", a.name))
      .slice(0, MAX_CHOICES)
      .map((oil) => ({
        value: oil.id,
        label: oil.strength === "strong" ? `${oil.name}, strong out of the bottle` : oil.name,
        change: { fragranceId: oil.id },
      }));
  }
  if (id === "wax")
    return shelf.materials.waxes
      .filter((wax) => !wax.archived && !spec.waxes.some((part) => part.id === wax.id) && wax.family !== "gel")
      .sort((a, b) => meanBy("wax", b.name) - meanBy("wax", a.name))
      .slice(0, MAX_CHOICES)
      .map((wax) => ({ value: wax.id, label: wax.name, change: { waxId: wax.id } }));
  if (id === "vessel")
    return shelf.vessels
      .filter((vessel) => !vessel.archived && vessel.state === "for sale" && vessel.use === "candle" && vessel.workingFillMg > LARGE_VESSEL_MG)
      .sort((a, b) => a.workingFillMg - b.workingFillMg)
      .flatMap((vessel): RungChoice[] => {
        const [wick] = wicksSuiting(shelf.wicks, vessel, family);
        return wick ? [{ value: vessel.id, label: `${vessel.name}, with ${wick.name}`, change: { containerId: vessel.id, wickId: wick.id } }] : [];
      })
      .slice(0, MAX_CHOICES);
  if (id === "wick") {
    const now = shelf.wicks.find((wick) => wick.id === product.wickId);
    const vessel = shelf.vessels.find((item) => item.id === product.containerId);
    // The series before the size.
    return (vessel ? wicksSuiting(shelf.wicks, vessel, family) : [])
      .filter((wick) => wick.id !== product.wickId)
      .sort((a, b) => Number(now !== undefined && seriesOf(a) === seriesOf(now)) - Number(now !== undefined && seriesOf(b) === seriesOf(now)))
      .slice(0, MAX_CHOICES)
      .map((wick) => ({ value: wick.id, label: wick.name, change: { wickId: wick.id } }));
  }
  return [];
}

/** Returns the rungs of a product's throw: what was tried, what it brought, the next one, and what that can be poured with; null if it is not there. */
export async function throwLadder(db: Database | Transaction, workshop: { id: string; rooms: string }, productId: string): Promise<ThrowLadder | null> {
  const product = await readProduct(db, workshop.id, productId);
  const formula = product && (await formulaForPlan(db, workshop.id, product.formulaId));
  if (!product || !formula) return null;
  const { spec } = formula;
  const mine = <T extends typeof wicks | typeof vessels>(table: T) => eq(table.workshopId, workshop.id);
  const shelf: Shelf = {
    materials: await readMaterials(db, workshop.id),
    wicks: await db.select().from(wicks).where(mine(wicks)),
    vessels: await db.select().from(vessels).where(mine(vessels)),
  };
  const [mold] =
    product.container === "mold"
      ? await db
          .select()
          .from(molds)
          .where(and(eq(molds.workshopId, workshop.id), eq(molds.id, product.containerId)))
      : [];
  const vessel = shelf.vessels.find((item) => item.id === product.containerId);
  const wick = shelf.wicks.find((item) => item.id === product.wickId);
  const scores = await scoresOf(db, workshop.id, product);
  const { fragrances, named } = materialsOf(spec, shelf.materials);
  const made: CandleMade = {
    wax: waxWords(spec, shelf.materials),
    scent: fragrances.map((oil) => oil.name).join(" + "),
    // As test candles have it.
    loadPpm: loadOnBasis(spec.loadPpm, spec.basis, "wax"),
    vessel: vessel?.name ?? mold?.name ?? "",
    wick: wick ? `${product.wicks > 1 ? `${product.wicks} × ` : ""}${wick.name}` : "",
  };
  const maxLoadPpm = limitsOf(spec, shelf.materials)[0]?.ppm ?? null;
  const family = named[0]?.family ?? "";
  const strengths = shelf.materials.fragrances.flatMap((oil) => (spec.fragrances.some((part) => part.id === oil.id) ? [oil.strength] : []));
  const input = {
    ...{ scores, made, maxLoadPpm },
    fillMg: vessel?.workingFillMg ?? mold?.fillMg ?? 0,
    strongOil: strengths.every((strength) => strength === null) ? null : strengths.some((strength) => strength === "strong"),
    sooty: await isSooty(db, workshop.id, product),
    minCureDays: timesOf(spec.process).leastCure / SECONDS.d,
  };
  const hasThrow = product.wickId !== null && spec.fragrances.length > 0;
  // A rung that nothing on the shelf does for is passed over, and said.
  const without: { id: string; says: string }[] = [];
  let next = hasThrow ? nextRung(input) : null;
  let choices: RungChoice[] = [];
  while (next) {
    choices = await choicesOf(db, workshop.id, shelf, { id: next.id, product, spec, loadPpm: made.loadPpm, maxLoadPpm, family });
    if (choices.length > 0 || next.id === "cure") break;
    without.push(next);
    next = nextRung({ ...input, without: without.map((rung) => rung.id) });
    if (without.some((rung) => rung.id === next?.id)) break;
  }
  const rooms = roomsOf(workshop.rooms);
  return {
    product,
    made,
    rungs: rungsOf(scores),
    ...{ next, choices, without },
    rooms,
    filled: roomsFilled(
      scores.filter((score) => isSameCandle(score, made)),
      rooms,
    ),
    formulaVersionId: formula.versionId,
  };
}
