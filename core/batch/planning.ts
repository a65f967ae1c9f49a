import { withEmbedSteps } from "../process/presets/embed-steps";
import { withMoldSteps } from "../process/presets/mold-steps";
import { fillsProduct, isDivided, isPouring, potsOf, poursOf, restOf, saidProduct } from "../process/process";
import type { Process } from "../process/schema";
import { displacedMg, type PlannedEmbed, writeEmbeds } from "../product/embeds";
import { type FillPart, fillOf } from "../product/parts";
import type { PlannedProduct, ProductWicks } from "../product/product";
import { innerOf } from "../product/section";
import { type Materials, materialsOf } from "../recipe/materials";
import type { FormulaSpec } from "../recipe/schema";
import type { Milligrams } from "../units/mass";
import { type Amounts, amountsFor, type Scales } from "../weigh-out/amounts";
import { WeighOutError, type WeighOutInput } from "../weigh-out/contract";
import { splitIntoPitchers } from "../weigh-out/pitchers";
import { fillsByPot } from "./fills";
import type { BatchPlan, PotPlan } from "./plan";
import { type RestOf, restOfPot } from "./rest";

/** A product as it is planned: a container of the shelf, how many, how far filled, with which wicks. */
export interface ChosenProduct {
  id: string;
  container?: "vessel" | "mold";
  name: string;
  statedFillMg: Milligrams;
  workingFillMg: Milligrams;
  soldByWeight: boolean;
  innerTopUm: number;
  innerBottomUm: number;
  heightUm: number;
  shape?: "straight" | "bowl";
  cavities?: number;
  material?: string;
  use?: string;
  count: number;
  part?: FillPart | null;
  /** The pot that it is poured from, where one melt is divided. */
  pot?: number | undefined;
  /** Which wicks, and how many to a piece; null for none. */
  chosenWicks?: ProductWicks | null;
  /** What is laid into one piece. */
  embeds?: readonly PlannedEmbed[];
}

/** The input of a batch's amounts: pots with their formulas, and products with their counts, or a total weight in place of counts. */
export interface PlanOrder {
  process: Process;
  pots: { name: string; formulaId?: string | undefined; number: number; spec: Omit<FormulaSpec, "process"> }[];
  products: ChosenProduct[];
  start?: WeighOutInput["start"];
  sparePpm: number;
  /** What stays in the pitchers of each pot. */
  spareMg?: number | undefined;
  pitcherMg?: number | null;
  scales: Scales;
}

export interface Planned {
  pots: Amounts[];
  /** What each pot takes over of another, and what is added to that; null where it is melted by itself. */
  rests: ((RestOf & { from: number }) | null)[];
  /** What goes into one of each product, in the order of the products, and what of it from each pot. */
  fillsMg: Milligrams[];
  byPot: Milligrams[][];
}

/** Returns a divided process with each pour that names no product set to the products of its own pot. */
const withPots = (process: Process, products: readonly { pot?: number | undefined }[]): Process => ({
  ...process,
  steps: process.steps.map((step) =>
    isPouring(step) && step.product === undefined
      ? { ...step, products: products.flatMap((product, index) => ((product.pot ?? 0) === (step.pot ?? 0) ? [index] : [])) }
      : step,
  ),
});

/** Returns which products of a plan a process pours, by its place or its name. @throws WeighOutError if it names one that is not there, or leaves one unfilled. */
function withPlaces(asked: Process, products: readonly Pick<ChosenProduct, "name" | "pot">[]): Process {
  const process = isDivided(asked.steps) ? withPots(asked, products) : asked;
  const steps = process.steps.map((step) => {
    if (!isPouring(step) || step.product === undefined) return step;
    const index =
      typeof step.product === "number" ? step.product : products.findIndex((product) => product.name.toLowerCase() === String(step.product).toLowerCase());
    if (!products[index])
      throw new WeighOutError(
        "vessels",
        `The process “${process.name}” pours ${saidProduct(step.product)}, which is not in this plan. Add it, or choose another process.`,
      );
    return { ...step, product: index };
  });
  const empty = products.find((_one, index) => !poursOf(steps).some((step) => fillsProduct(step, index)));
  if (empty)
    throw new WeighOutError("vessels", `No pour of the process “${process.name}” fills ${empty.name}. Take it out of the plan, or choose another process.`);
  return { ...process, steps };
}

/** Returns the amounts of the pots: those that are the rest of another first, since that other one has to hold them too. */
function workPots(order: PlanOrder, shelf: Materials, shares: readonly Milligrams[][], used: number): Pick<Planned, "pots" | "rests"> {
  const { steps } = order.process;
  const pots: Amounts[] = [];
  const rests: Planned["rests"] = [];
  /** What other pots take over of each pot. */
  const taken = new Array<number>(used).fill(0);
  const withSpare = 1 + order.sparePpm / 1_000_000;
  for (let at = used - 1; at >= 0; at--) {
    const pot = order.pots[at] as PlanOrder["pots"][number];
    const from = restOf(steps, at);
    const passedOn = taken[at] ?? 0;
    if (order.start && (from !== undefined || passedOn > 0))
      throw new WeighOutError("vessels", "A pot that is divided cannot begin from a weight: enter how many of each you make.");
    const fills = order.products.map((product, index) => ({ name: product.name, fillMg: shares[index]?.[at] ?? 0, count: product.count }));
    if (passedOn > 0) fills.push({ name: "the rest", fillMg: Math.ceil(passedOn / withSpare), count: 1 });
    const amounts = amountsFor(pot.spec, shelf, {
      fills,
      start: order.start,
      sparePpm: order.sparePpm,
      // What stays in the pitcher stays there once, after the last pour.
      spareMg: passedOn > 0 ? 0 : order.spareMg,
      scales: order.scales,
    });
    pots[at] = amounts;
    rests[at] = null;
    if (from === undefined) continue;
    const rest = restOfPot(amounts, pot, order.pots[from] as PlanOrder["pots"][number], shelf);
    rests[at] = { ...rest, from };
    taken[from] = (taken[from] ?? 0) + rest.baseMg;
  }
  return { pots, rests };
}

/** Returns the wax that goes into one piece: its fill, less the room that is taken by what is laid in. @throws WeighOutError if no room is left. */
function waxFillOf(product: ChosenProduct): Milligrams {
  const fill = fillOf(innerOf(product), product.workingFillMg, product.part ?? null);
  const left = fill - displacedMg(product.embeds);
  if (left <= 0) throw new WeighOutError("vessels", `${writeEmbeds(product.embeds ?? [])} leave no room for wax in ${product.name}: lay in less.`);
  return left;
}

/** Returns the amounts of every pot. Where it begins from a weight, the total is shared over the products by their fills, none above what it takes when full. @throws WeighOutError as `weighOut`. */
export function workOut(wanted: PlanOrder, shelf: Materials): Planned {
  const order = { ...wanted, process: withPlaces(wanted.process, wanted.products) };
  const wholes = order.products.map(waxFillOf);
  const shares = order.products.map((product, index) => fillsByPot(order.process, innerOf(product), wholes[index] as number, index));
  const used = potsOf(order.process.steps);
  if (order.pots.length < used) throw new WeighOutError("vessels", `This process uses ${used} pots: choose a formula for each.`);
  const { pots, rests } = workPots(order, shelf, shares, used);
  if (!order.start) return { pots, rests, fillsMg: wholes, byPot: shares };
  const asked = order.products.reduce((sum, product, index) => sum + (wholes[index] as number) * product.count, 0);
  const total = pots[0]?.totalMg ?? 0;
  // What is more than a full vessel takes is left over, and not poured into it.
  const fillsMg = order.products.map((product, index) =>
    asked > 0 ? Math.min(product.workingFillMg - displacedMg(product.embeds), Math.floor((total * (wholes[index] as number)) / asked)) : 0,
  );
  return { pots, rests, fillsMg, byPot: fillsMg.map((mg) => [mg]) };
}

/** The plan that a batch is started with: the amounts, and everything they rest on as it is now. @throws WeighOutError as `weighOut`. */
export function planBatch(order: PlanOrder, shelf: Materials): BatchPlan {
  const worked = workOut(order, shelf);
  const pots = worked.pots.map((amounts, at): PotPlan => {
    const pot = order.pots[at] as PlanOrder["pots"][number];
    const { process: _process, ...recipe } = pot.spec as FormulaSpec;
    const rest = worked.rests[at] ?? null;
    const components = (rest?.additions ?? amounts.components)
      .filter((part) => part.mg > 0 || part.count)
      .map(({ exactMg: _exact, scale, ...part }) => ({
        ...part,
        scale: { id: scale.id, name: scale.name, resolutionUg: scale.resolutionUg, ...(scale.unit ? { unit: scale.unit } : {}) },
      }));
    let pitchers: PotPlan["pitchers"];
    if (order.pitcherMg && amounts.totalMg > order.pitcherMg && !rest) {
      try {
        pitchers = splitIntoPitchers(
          components.map((part) => ({ ...part, resolutionUg: part.scale.resolutionUg })),
          order.pitcherMg,
          order.scales.wax.resolutionUg,
          amounts.maxLoadPpm,
        ).map((intoPitcher) => ({
          totalMg: intoPitcher.totalMg,
          components: intoPitcher.components.map((part, index) => ({
            id: components[index]?.id ?? "",
            mg: part.mg,
            ...(part.count ? { n: part.count.n } : {}),
          })),
        }));
      } catch (error) {
        if (error instanceof RangeError) throw new WeighOutError("pitcher_capacity_g", error.message);
        throw error;
      }
    }
    return {
      formulaName: pot.name,
      ...(pot.formulaId ? { formulaId: pot.formulaId } : {}),
      versionNumber: pot.number,
      recipe,
      waxFamily: materialsOf(pot.spec, shelf).named[0]?.family ?? "",
      maxLoadPpm: amounts.maxLoadPpm,
      totalMg: amounts.totalMg,
      components,
      ...(rest ? { restOf: rest.from, baseMg: rest.baseMg } : {}),
      sparePpm: order.start ? 0 : order.sparePpm,
      ...(order.spareMg && !order.start ? { spareMg: order.spareMg } : {}),
      ...(order.pitcherMg ? { pitcherMg: order.pitcherMg } : {}),
      ...(pitchers ? { pitchers } : {}),
    };
  });
  const seen = new Map<string, number>();
  const products = order.products.map((product, index): PlannedProduct => {
    const n = (seen.get(product.id) ?? 0) + 1;
    seen.set(product.id, n);
    return {
      key: n === 1 ? product.id : `${product.id}:${n}`,
      container: product.container ?? "vessel",
      containerId: product.id,
      name: product.name,
      ...(product.cavities && product.container === "mold" ? { cavities: product.cavities } : {}),
      ...(product.material ? { material: product.material } : {}),
      ...(product.use && product.use !== "candle" ? { use: product.use } : {}),
      statedFillMg: Math.max(0, product.statedFillMg - displacedMg(product.embeds)),
      fillMg: worked.fillsMg[index] as number,
      ...(pots.length > 1 ? { fillsMg: worked.byPot[index] as number[] } : {}),
      soldByWeight: product.soldByWeight,
      count: product.count,
      innerTopUm: product.innerTopUm,
      innerBottomUm: product.innerBottomUm,
      heightUm: product.heightUm,
      ...(product.shape === "bowl" ? { shape: product.shape } : {}),
      ...(product.part ? { part: product.part } : {}),
      wicks: product.chosenWicks ?? null,
      ...(product.embeds?.length ? { embeds: [...product.embeds] } : {}),
    };
  });
  const process = withMoldSteps(
    withEmbedSteps(withPlaces(order.process, order.products), order.products),
    order.products.map((product) => ({ container: product.container, isWicked: !!product.chosenWicks })),
  );
  return { format: 3, process, pots, products };
}
