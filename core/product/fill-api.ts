import { z } from "zod";
import { WATER_DENSITY_20C } from "../units/density";
import { workingStep } from "../weigh-out/api";
import { fillByGeometry, fillByWater, type Geometry } from "./fill";

const finite = z.number({ error: "Give a number." });
const length = finite.positive("A measure must be above 0 mm.").max(1_000, "A measure cannot be above 1000 mm.");
const headspace = finite.min(0, "The headspace cannot be negative.").max(1_000, "The headspace cannot be above 1000 mm.").default(0);
const density = finite.min(0.5, "Wax is not lighter than 0.5 g/ml.").max(1.5, "Wax is not heavier than 1.5 g/ml.");

const geometry = z.discriminatedUnion("shape", [
  z.object({ shape: z.literal("cylinder"), diameter_mm: length, height_mm: length, headspace_mm: headspace }),
  z.object({ shape: z.literal("taper"), top_mm: length, bottom_mm: length, height_mm: length, headspace_mm: headspace }),
  z.object({ shape: z.literal("bowl"), diameter_mm: length, depth_mm: length, headspace_mm: headspace }),
]);

/** The request of `POST /api/v1/fill`: the weight of water to the line, or a geometry in millimeters. */
export const fillRequest = z
  .object({
    water_g: finite.min(0.001, "The water must weigh at least 0.001 g.").max(100_000, "The water cannot weigh above 100 000 g.").optional(),
    water_density: finite
      .min(0.95, "Water is not lighter than 0.95 g/ml.")
      .max(1.01, "Water is not heavier than 1.01 g/ml.")
      .default(WATER_DENSITY_20C / 1e6),
    geometry: geometry.optional(),
    wax_density: density,
  })
  .refine((value) => (value.water_g === undefined) !== (value.geometry === undefined), {
    path: ["water_g"],
    error: "Give the weight of water or a geometry, one of the two.",
  });

export const fillResponse = z.object({ fill_g: z.number(), working: z.array(workingStep) });

/** Answers one fill request. @throws RangeError if the headspace leaves no room. */
export function answerFill(request: z.output<typeof fillRequest>): z.output<typeof fillResponse> {
  const shape = request.geometry;
  let inner: Geometry | null = null;
  if (shape?.shape === "cylinder") inner = { shape: "cylinder", diameterMm: shape.diameter_mm, heightMm: shape.height_mm, headspaceMm: shape.headspace_mm };
  if (shape?.shape === "taper")
    inner = { shape: "taper", topMm: shape.top_mm, bottomMm: shape.bottom_mm, heightMm: shape.height_mm, headspaceMm: shape.headspace_mm };
  if (shape?.shape === "bowl") inner = { shape: "bowl", diameterMm: shape.diameter_mm, depthMm: shape.depth_mm, headspaceMm: shape.headspace_mm };
  const wax = Math.round(request.wax_density * 1e6);
  const fill = inner ? fillByGeometry(inner, wax) : fillByWater(Math.round((request.water_g ?? 0) * 1_000), wax, Math.round(request.water_density * 1e6));
  return { fill_g: fill.fillMg / 1_000, working: fill.working };
}
