import { z } from "zod";
import { LARGEST_LOAD_PERCENT } from "./load";
import { ScaleError, scaleFormula } from "./scale";

const finite = z.number({ error: "Give a number." });

/** The request of `POST /api/v1/scale`: grams and percent, as plain JSON numbers. */
export const scaleRequest = z
  .object({
    basis: z.enum(["wax", "total"], { error: 'Say what the load is a share of: "wax" or "total".' }),
    load_percent: finite.min(0, "The load cannot be negative.").max(LARGEST_LOAD_PERCENT.wax, "The load cannot be above 100 %."),
    max_load_percent: finite.positive("The largest load must be above 0.").max(100, "The largest load cannot be above 100 %.").nullish(),
    vessels: z
      .array(
        z.object({
          name: z.string().max(200).optional(),
          fill_g: finite.min(0.001, "The fill must be at least 0.001 g.").max(100_000, "The fill cannot be above 100 000 g."),
          count: finite.int("The count must be a whole number.").min(1, "The count must be at least 1.").max(100_000, "The count cannot be above 100 000."),
        }),
        { error: "Give at least one vessel." },
      )
      .min(1, "Give at least one vessel.")
      .max(500, "At most 500 kinds of vessel at once."),
    spare_percent: finite.min(0, "The spare cannot be negative.").max(100, "The spare cannot be above 100 %.").default(0),
    scale_resolution_g: finite.min(0.001, "The resolution must be at least 0.001 g.").max(100, "The resolution cannot be above 100 g.").default(1),
  })
  .refine((value) => value.basis !== "total" || value.load_percent <= LARGEST_LOAD_PERCENT.total, {
    path: ["load_percent"],
    error: `A load of the total cannot be above ${LARGEST_LOAD_PERCENT.total} %.`,
  });

const figure = z.object({ name: z.string(), value: z.number(), unit: z.string() });
export const workingStep = z.object({
  gives: figure,
  by: z.enum(["given", "multiply", "divide", "add", "subtract", "round", "round up", "formula"]),
  from: z.array(figure),
  expression: z.string().optional(),
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
});

export const apiError = z.object({
  error: z.object({ message: z.string(), fields: z.record(z.string(), z.array(z.string())) }),
});

const threeDecimals = (value: number) => Math.round(value * 1_000) / 1_000;

/** Answers one scale request. @throws ScaleError where the amounts cannot make a batch. */
export function answerScale(request: z.output<typeof scaleRequest>): z.output<typeof scaleResponse> {
  const scaled = scaleFormula({
    basis: request.basis,
    loadPpm: Math.round(request.load_percent * 10_000),
    maxLoadPpm: request.max_load_percent == null ? null : Math.round(request.max_load_percent * 10_000),
    vessels: request.vessels.map((vessel) => ({ name: vessel.name ?? "", fillMg: Math.round(vessel.fill_g * 1_000), count: vessel.count })),
    sparePpm: Math.round(request.spare_percent * 10_000),
    resolutionUg: Math.round(request.scale_resolution_g * 1e6),
  });
  return {
    total_g: scaled.totalMg / 1_000,
    wax_g: scaled.waxMg / 1_000,
    fragrance_g: scaled.fragranceMg / 1_000,
    load_percent_of_wax: threeDecimals(scaled.loadPercentOfWax),
    load_percent_of_total: threeDecimals(scaled.loadPercentOfTotal),
    warnings: scaled.warnings,
    working: scaled.working,
  };
}

/** The messages of a refused request, gathered by field: `{"load_percent":["…"]}`. */
export function fieldErrors(error: z.ZodError | ScaleError): Record<string, string[]> {
  if (error instanceof ScaleError) return { [error.field]: [error.message] };
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
