import { z } from "zod";
import { LARGEST_LOAD_PERCENT } from "../recipe/load";
import { MAX_DROPS_PER_LB, type Mix, type MixedComponent, mixComponents, sharesOf } from "../recipe/mix";
import { exactResolution } from "../units/mass";
import { WeighOutError } from "./contract";
import { type PotComponent, splitIntoPitchers } from "./pitchers";
import { weighOut } from "./weigh-out";

const finite = z.number({ error: "Give a number." });

const share = z.object({
  name: z.string().min(1, "Enter a name.").max(200),
  share: finite.positive("A share must be above 0.").max(1e6, "A share cannot be above 1 000 000."),
});
const mass = (what: string) => finite.min(0.001, `${what} must be at least 0.001 g.`).max(1e6, `${what} cannot be above 1 000 000 g.`);
const vessel = z.object({
  name: z.string().max(200).optional(),
  fill_g: finite.min(0.001, "The fill must be at least 0.001 g.").max(100_000, "The fill cannot be above 100 000 g."),
  count: finite.int("The count must be a whole number.").min(1, "The count must be at least 1.").max(100_000, "The count cannot be above 100 000."),
});

/** The request of `POST /api/v1/scale`: grams and percent, as plain JSON numbers. Vessels, or a start in their place. */
export const scaleRequest = z
  .object({
    basis: z.enum(["wax", "total"], { error: 'Say what the load is a share of: "wax" or "total".' }),
    load_percent: finite.min(0, "The load cannot be negative.").max(LARGEST_LOAD_PERCENT.wax, "The load cannot be above 100 %."),
    max_load_percent: finite.positive("The largest load must be above 0.").max(100, "The largest load cannot be above 100 %.").nullish(),
    vessels: z
      .array(vessel, { error: "Give at least one vessel." })
      .min(1, "Give at least one vessel.")
      .max(500, "At most 500 kinds of vessel at once.")
      .optional(),
    start: z
      .union([z.strictObject({ wax_g: mass("The wax") }), z.strictObject({ total_g: mass("The total") })], {
        error: 'Give either {"wax_g":…} or {"total_g":…}, from 0.001 to 1 000 000 g.',
      })
      .optional(),
    spare_percent: finite.min(0, "The extra cannot be negative.").max(100, "The extra cannot be above 100 %.").default(0),
    scale_resolution_g: finite.min(0.001, "The resolution must be at least 0.001 g.").max(100, "The resolution cannot be above 100 g.").default(1),
    /** The scale for the fragrance; that of the wax where it is not given. */
    fragrance_resolution_g: finite.min(0.001, "The resolution must be at least 0.001 g.").max(100, "The resolution cannot be above 100 g.").optional(),
    waxes: z.array(share).min(1, "Give at least one wax.").max(20, "At most 20 waxes.").optional(),
    fragrances: z.array(share).min(1, "Give at least one fragrance.").max(50, "At most 50 fragrances.").optional(),
    additives: z
      .array(
        z.object({
          name: z.string().min(1, "Enter a name.").max(200),
          percent_of_wax: finite.positive("The percentage must be above 0.").max(50, "An additive cannot be above 50 % of the wax."),
        }),
      )
      .max(20, "At most 20 additives.")
      .optional(),
    dye: z.object({ drops_per_lb: finite.min(0, "Drops cannot be negative.").max(1_000, "1000 drops a pound is no candle.") }).optional(),
    pitcher_capacity_g: finite.min(1, "A pitcher holds at least 1 g.").max(1e6, "A pitcher cannot hold more than 1 000 000 g.").optional(),
  })
  .refine((value) => value.basis !== "total" || value.load_percent <= LARGEST_LOAD_PERCENT.total, {
    path: ["load_percent"],
    error: `A load of the total cannot be above ${LARGEST_LOAD_PERCENT.total} %.`,
  })
  .refine((value) => value.vessels !== undefined || value.start !== undefined, {
    path: ["vessels"],
    error: "Give at least one vessel, or a start in place of vessels.",
  })
  .refine((value) => value.vessels === undefined || value.start === undefined, { path: ["start"], error: "Give vessels or a start, not both." });

const figure = z.object({ name: z.string(), value: z.number(), unit: z.string() });
export const workingStep = z.object({
  gives: figure,
  by: z.enum(["given", "multiply", "divide", "add", "subtract", "round", "round up", "formula"]),
  from: z.array(figure),
  expression: z.string().optional(),
});

const answeredComponent = z.object({
  name: z.string(),
  kind: z.enum(["wax", "fragrance", "additive", "dye"]),
  g: z.number(),
  drops: z.number().int().optional(),
});

/** The answer of `POST /api/v1/scale`. Loads are rounded to three decimals; masses are exact to the milligram. */
export const scaleResponse = z.object({
  total_g: z.number(),
  wax_g: z.number(),
  fragrance_g: z.number(),
  load_percent_of_wax: z.number(),
  load_percent_of_total: z.number(),
  warnings: z.array(z.object({ code: z.string(), message: z.string() })),
  working: z.array(workingStep),
  /** Their grams sum to total_g; dye by drops has none. */
  components: z.array(answeredComponent),
  /** Only where a capacity was given; their sums are the components'. */
  pitchers: z.array(z.object({ total_g: z.number(), components: z.array(answeredComponent) })).optional(),
});

export const apiError = z.object({
  error: z.object({ message: z.string(), fields: z.record(z.string(), z.array(z.string())) }),
});

const threeDecimals = (value: number) => Math.round(value * 1_000) / 1_000;

/** Parts by share, their names serving as ids. */
function partsOf(list: readonly { name: string; share: number }[]): Mix["waxes"] {
  const parts: Mix["waxes"] = [];
  for (const { name, share: its } of list) parts.push({ id: name, name, share: its });
  return parts;
}

/** Components as they are answered: grams, and drops where they are counted. */
function answered(list: readonly Omit<PotComponent, "resolutionUg">[]): z.output<typeof answeredComponent>[] {
  const out: z.output<typeof answeredComponent>[] = [];
  for (const part of list) {
    const item: z.output<typeof answeredComponent> = { name: part.name, kind: part.kind, g: part.mg / 1_000 };
    if (part.count) item.drops = part.count.n;
    out.push(item);
  }
  return out;
}

/** The pitchers of a pot, as they are answered. @throws WeighOutError if they cannot hold it. */
function pitchersOf(list: readonly MixedComponent[], capacityG: number, resolutionUg: number, fragranceResolutionUg: number, maxLoadPpm: number | null) {
  const components: PotComponent[] = list.map((part) => ({ ...part, resolutionUg: part.kind === "fragrance" ? fragranceResolutionUg : resolutionUg }));
  try {
    return splitIntoPitchers(components, Math.round(capacityG * 1_000), resolutionUg, maxLoadPpm).map((intoPitcher) => ({
      total_g: intoPitcher.totalMg / 1_000,
      components: answered(intoPitcher.components),
    }));
  } catch (error) {
    if (error instanceof RangeError) throw new WeighOutError("pitcher_capacity_g", error.message);
    throw error;
  }
}

/** Answers one scale request. @throws WeighOutError if the amounts cannot make a batch. */
export function answerScale(request: z.output<typeof scaleRequest>): z.output<typeof scaleResponse> {
  const resolutionUg = exactResolution(request.scale_resolution_g * 1e6);
  const fragranceResolutionUg = exactResolution((request.fragrance_resolution_g ?? request.scale_resolution_g) * 1e6);
  const maxLoadPpm = request.max_load_percent == null ? null : Math.round(request.max_load_percent * 10_000);
  const additives = (request.additives ?? []).map((additive) => ({ name: additive.name, ppmOfWax: Math.round(additive.percent_of_wax * 10_000) }));
  const { start } = request;
  const mix: Mix = {
    waxes: partsOf(request.waxes ?? [{ name: "wax", share: 1 }]),
    fragrances: request.load_percent > 0 || request.fragrances ? partsOf(request.fragrances ?? [{ name: "fragrance", share: 1 }]) : [],
    additives: additives.map((additive) => ({ id: additive.name, name: additive.name, ppm: additive.ppmOfWax })),
    dyes: request.dye ? [{ id: "dye", name: "dye", by: "drops", amount: request.dye.drops_per_lb }] : [],
  };
  const shares = sharesOf(mix);
  const amounts = weighOut({
    basis: request.basis,
    loadPpm: Math.round(request.load_percent * 10_000),
    maxLoadPpm,
    vessels: (request.vessels ?? []).map((vessel) => ({ name: vessel.name ?? "", fillMg: Math.round(vessel.fill_g * 1_000), count: vessel.count })),
    sparePpm: Math.round(request.spare_percent * 10_000),
    resolutionUg,
    fragranceResolutionUg,
    start: start && ("wax_g" in start ? { waxMg: Math.round(start.wax_g * 1_000) } : { totalMg: Math.round(start.total_g * 1_000) }),
    additives: shares.additives,
    waxShares: shares.waxShares,
    waxNames: shares.waxNames,
    oils: shares.oils,
  });
  const warnings: { code: string; message: string }[] = amounts.warnings.map(({ code, message }) => ({ code, message }));
  const components = mixComponents(amounts, mix);
  if (request.dye && request.dye.drops_per_lb > MAX_DROPS_PER_LB.other) {
    warnings.push({
      code: "much-dye",
      message: `${request.dye.drops_per_lb} drops a pound is more than the about ${MAX_DROPS_PER_LB.other} that wax takes as a rule: too much clogs the wick and roughens the top.`,
    });
  }
  const answer: z.output<typeof scaleResponse> = {
    total_g: amounts.totalMg / 1_000,
    wax_g: amounts.waxMg / 1_000,
    fragrance_g: amounts.fragranceMg / 1_000,
    load_percent_of_wax: threeDecimals(amounts.loadPercentOfWax),
    load_percent_of_total: threeDecimals(amounts.loadPercentOfTotal),
    warnings,
    working: amounts.working,
    components: answered(components),
  };
  const capacity = request.pitcher_capacity_g;
  if (capacity !== undefined) answer.pitchers = pitchersOf(components, capacity, resolutionUg, fragranceResolutionUg, maxLoadPpm);
  return answer;
}

/** Returns the messages of a refused request, gathered by field: `{"load_percent":["…"]}`. */
export function fieldErrors(error: z.ZodError | WeighOutError): Record<string, string[]> {
  if (error instanceof WeighOutError) return { [error.field]: [error.message] };
  const fields: Record<string, string[]> = {};
  for (const issue of error.issues) {
    const path = issue.path.map(String).join(".") || "body";
    fields[path] = [...(fields[path] ?? []), issue.message];
    // A fault inside a list is told at the list too, where a form has one place for it.
    const first = String(issue.path[0] ?? "body");
    if (first !== path) fields[first] = [...(fields[first] ?? []), issue.message];
  }
  return fields;
}
