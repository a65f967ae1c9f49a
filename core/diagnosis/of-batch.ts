import { ancestryOf, contentsOf, isFromOnePot, potOfProduct } from "../batch/contents";
import { jarStatusesOf } from "../batch/jars";
import { pouredAt, secondsAbove, weighedLoad } from "../batch/phase";
import type { BatchPlan } from "../batch/plan";
import type { BatchState, Poured } from "../batch/state";
import { partKey } from "../batch/state";
import { fillsProduct, poursOf, rangeOfStep, recordedBy, recorderOf, timesOf } from "../process/process";
import type { StepRecord } from "../process/step-type";
import FAMILIES from "../recipe/families.json" with { type: "json" };
import { addedPpmOf, askedLoadOfWax } from "../recipe/load";
import type { WaxFamily } from "./diagnosis";
import type { DiagnosisRecord } from "./record";

const DAY_S = 86_400;
const POUND_MG = 453_592.37;
const celsius = (centi: number) => centi / 100;
const pair = (range: { low: number; high: number } | undefined): [number, number] | undefined =>
  range ? [celsius(range.low), celsius(range.high)] : undefined;

/** Leaves out what nobody recorded. */
const recorded = (record: { [K in keyof DiagnosisRecord]: DiagnosisRecord[K] | undefined }): DiagnosisRecord =>
  Object.fromEntries(Object.entries(record).filter(([, value]) => value !== undefined)) as DiagnosisRecord;

/** What a notebook can say of a batch; everything else of its plan was only filled in. */
const NOTED = new Set<keyof DiagnosisRecord>(["heat_c", "add_c", "pour_c", "load_percent_of_wax", "asked_load_percent", "max_load_percent", "room_c", "wicks"]);
/** Leaves out what a notebook does not hold. */
const onlyNoted = (record: Parameters<typeof recorded>[0]): DiagnosisRecord =>
  Object.fromEntries(Object.entries(recorded(record)).filter(([key]) => NOTED.has(key as keyof DiagnosisRecord))) as DiagnosisRecord;

/** Returns what a pot holds of a kind, in mg, as it was weighed; undefined if something of it was not. */
function weighedOf(plan: BatchPlan, state: BatchState, pot: number, kind: string): number | undefined {
  const parts = contentsOf(plan, pot, state).filter((part) => part.kind === kind);
  return parts.every((part) => part.isLogged) ? parts.reduce((sum, part) => sum + part.mg, 0) : undefined;
}

function dropsOf(plan: BatchPlan, state: BatchState, pot: number, waxMg: number | undefined): number | undefined {
  const dyes = (plan.pots[pot]?.components ?? []).filter((component) => component.kind === "dye");
  if (dyes.length === 0) return 0;
  if (!waxMg || dyes.some((dye) => dye.count?.of !== "drops" || !state.counted[partKey(pot, dye.id)])) return undefined;
  return dyes.reduce((sum, item) => sum + (state.counted[partKey(pot, item.id)]?.n ?? 0), 0) / (waxMg / POUND_MG);
}

/** What a batch is diagnosed by: its wax, its ranges, and what its record says. Nothing that was only planned counts as recorded. */
export interface DiagnosisOfBatch {
  wax_family: WaxFamily | undefined;
  ranges: {
    heat_c?: [number, number];
    add_c?: [number, number];
    pour_c?: [number, number];
    ceiling_c: number;
    cure_days: [number, number];
    stir_minutes?: number;
  };
  record: DiagnosisRecord;
}

/** @param at when the flaw was seen, which is how long it had cured; @param tools kinds of thermometer by their id */
export function diagnosisOf(plan: BatchPlan, state: BatchState, at: string, tools: ReadonlyMap<string, string> = new Map(), key?: string): DiagnosisOfBatch {
  const { steps } = plan.process;
  const product = plan.products.find((product) => product.key === key) ?? plan.products[0];
  // A product that takes from several pots is judged by the first, as the layer that stands at its bottom.
  const potAt = isFromOnePot(product) ? potOfProduct(product) : 0;
  const pot = plan.pots[potAt];
  // What was done to the pot that it is the rest of was done to it too; its own steps come first.
  const run = (value: StepRecord) => {
    for (const at of ancestryOf(plan, potAt)) {
      const found = recorderOf(
        steps.filter((step) => (step.pot ?? 0) === at),
        value,
      );
      if (found) return found;
    }
    return potAt === 0 ? recorderOf(steps, value) : undefined;
  };
  const rangeOf = (value: StepRecord) => {
    const found = run(value);
    return found && pair(rangeOfStep(found));
  };
  const read = (value: StepRecord) => {
    const found = run(value);
    return found ? state.reads[found.id] : undefined;
  };
  const c = (value: StepRecord) => {
    const item = read(value);
    return item && celsius(item.celsius);
  };
  // Products that are filled one after the other are not poured in two goes.
  const index = product ? plan.products.indexOf(product) : 0;
  const fills = poursOf(steps).filter((pour) => fillsProduct(pour, index));
  const pours = fills.flatMap((fill): Poured[] => (state.pours[fill.id] ? [state.pours[fill.id] as Poured] : []));
  const first = pours[0];
  const poured = pouredAt(plan, state);
  const wax = weighedOf(plan, state, potAt, "wax");
  const additive = weighedOf(plan, state, potAt, "additive");
  const stirs = Object.values(state.did).flatMap((item) => (item.seconds === undefined ? [] : [item.seconds]));
  const hard = Object.values(state.did).flatMap((item) => (item.hard === undefined ? [] : [item.hard]));
  const looked = (check: string) => (state.prepared ? state.prepared.checks.includes(check) || undefined : undefined);
  const melted = ancestryOf(plan, potAt).flatMap((at) => state.melted[at] ?? [])[0];
  const rooms = state.rooms.map((room) => room.mean);
  const room = rooms.length > 0 ? rooms.reduce((a, b) => a + b, 0) / rooms.length : (first?.roomCelsius ?? undefined);
  const weights = pours.flatMap((pour) => pour.filled.filter((filled) => filled.product === product?.key).flatMap((filled) => filled.weightsMg ?? []));
  const pierced = recordedBy(steps, "pierced").length > 0 ? recordedBy(steps, "pierced").some((step) => state.did[step.id]) : undefined;
  const tool = read("pour_c")?.instrumentId ?? read("add_c")?.instrumentId ?? null;
  const times = timesOf(plan.process);
  const stir = run("stir_minutes");
  const askedLoad = pot === undefined ? undefined : askedLoadOfWax(pot.recipe, addedPpmOf(pot.recipe)) / 10_000;
  return {
    wax_family: pot && pot.waxFamily in FAMILIES ? (pot.waxFamily as WaxFamily) : undefined,
    ranges: {
      ...(rangeOf("heat_c") ? { heat_c: rangeOf("heat_c") } : {}),
      ...(rangeOf("add_c") ? { add_c: rangeOf("add_c") } : {}),
      ...(rangeOf("pour_c") ? { pour_c: rangeOf("pour_c") } : {}),
      ceiling_c: celsius(plan.process.ceiling),
      cure_days: [times.leastCure / DAY_S, times.recommendedCure / DAY_S],
      ...(stir && "seconds" in stir && typeof stir.seconds === "number" ? { stir_minutes: stir.seconds / 60 } : {}),
    } as DiagnosisOfBatch["ranges"],
    record: (plan.fromNotes ? onlyNoted : recorded)({
      heat_c: c("heat_c"),
      add_c: c("add_c"),
      pour_c: c("pour_c"),
      load_percent_of_wax: plan.fromNotes ? askedLoad : (weighedLoad(plan, state, potAt) ?? undefined),
      max_load_percent: pot?.maxLoadPpm == null ? undefined : pot.maxLoadPpm / 10_000,
      asked_load_percent: askedLoad,
      room_c: room === undefined ? undefined : celsius(room),
      vessel_warmed: first?.warmed == null ? undefined : first.warmed !== "no",
      stir_minutes: stirs.length > 0 ? stirs.reduce((a, b) => a + b, 0) / 60 : undefined,
      minutes_above_ceiling: state.curve.points.length > 0 ? secondsAbove(state, first?.at ?? state.lastAt) / 60 : undefined,
      minutes_hot_with_oil: read("add_c") && first ? (Date.parse(first.at) - Date.parse(read("add_c")?.at ?? "")) / 60_000 : undefined,
      halves: pours.length === 0 ? undefined : pours.length > 1,
      cure_days: poured ? Math.max(0, (Date.parse(at) - Date.parse(poured)) / 86_400_000) : undefined,
      dye_drops_per_lb: dropsOf(plan, state, potAt, wax),
      additive_percent_of_wax: wax && additive !== undefined ? (additive / wax) * 100 : undefined,
      wax_g: product && product.fillMg / 1_000,
      odd_shape: product && product.shape === "bowl",
      poured_fast: first?.pace && first.pace === "fast",
      poured_slowly: first?.pace && first.pace === "slowly",
      tapped: first?.tapped,
      poured_on_wick: first?.wicksWere && first.wicksWere === "poured onto",
      wick_pulled: first?.wicksWere && first.wicksWere === "pulled aside",
      stirred_hard: hard.length > 0 ? hard.includes(true) : undefined,
      double_boiler: melted ? melted.how === "double boiler" : looked("bath"),
      direct_heat: melted && melted.how === "plate",
      microwaved: melted && melted.how === "microwave",
      water_got_in: melted?.water ?? undefined,
      mixing_test: pot?.waxFamily === "gel" ? looked("mixed") : undefined,
      mould_sealed: product?.container === "mold" ? looked("sealed") : undefined,
      left_in_pitcher_g: pours.at(-1)?.leftMg == null ? undefined : (pours.at(-1)?.leftMg ?? 0) / 1_000,
      mica: recordedBy(steps, "mica").length > 0 || (pot?.components ?? []).some((part) => /mica/i.test(part.name)) || undefined,
      sun: state.stood?.sun,
      draught: state.stood?.draft,
      vessel_diameter_mm: product && product.innerTopUm / 1_000,
      vessel_height_mm: product && product.heightUm / 1_000,
      narrows: product && product.innerBottomUm < product.innerTopUm * 0.95,
      wicks: product?.wicks?.count,
      vessel_inspected: looked("inspected"),
      vessel_dry: looked("dry"),
      wick_held: looked("straight"),
      relief_holes: pierced,
      second_pour_hours: pours.length > 1 ? (Date.parse((pours[1] as Poured).at) - Date.parse((pours[0] as Poured).at)) / 3_600_000 : undefined,
      spare_percent: pot && pot.sparePpm / 10_000,
      fill_over_percent: weights.length > 0 && product ? (weights.reduce((a, b) => a + b, 0) / weights.length / product.fillMg - 1) * 100 : undefined,
      instrument: tool ? tools.get(tool) : undefined,
    }),
  };
}

/** So strong a throw is not called weak. Common practice, no source: 7 of 10 does for a small room. */
const STRONG_ENOUGH = 7;

/**
 * Returns when a flaw was first seen, or smelled: a weak cold throw at the first score that says so, since what counts is the age then and not now. Null
 * where nobody noticed it.
 */
export function flawSeenAt(state: Pick<BatchState, "flaws" | "smells">, defect: string): string | null {
  const times = state.flaws.filter((flaw) => flaw.flaw.defect === defect).map((flaw) => flaw.at);
  if (defect === "weak_cold_throw") times.push(...state.smells.filter((smell) => smell.score < STRONG_ENOUGH).map((smell) => smell.at));
  return times.sort((a, b) => Date.parse(a) - Date.parse(b))[0] ?? null;
}

/** What came out of one product of a batch: how many jars, how many of them with each flaw. */
export interface Outcome {
  product: string;
  jars: number;
  lookedAt: string | null;
  flawed: Record<string, number>;
}

/** Returns what came out of each product of a batch. Flaws that were seen together on a jar are of the same jars; a flaw is on no more jars than there are. */
export function outcomesOf(plan: BatchPlan, state: BatchState): Outcome[] {
  return plan.products.map((product) => {
    const { filled } = jarStatusesOf(plan, state, product.key);
    const looks = new Map<string, Map<string, number>>();
    for (const { eventId, flaw } of state.flaws) {
      if (flaw.product !== product.key) continue;
      const of = looks.get(flaw.defect) ?? new Map<string, number>();
      of.set(eventId, Math.max(of.get(eventId) ?? 0, flaw.jars));
      looks.set(flaw.defect, of);
    }
    const flawed = Object.fromEntries(
      [...looks].map(([defect, of]) => [
        defect,
        Math.min(
          filled,
          [...of.values()].reduce((a, b) => a + b, 0),
        ),
      ]),
    );
    return { product: product.key, jars: filled, lookedAt: state.lookedAt, flawed };
  });
}
