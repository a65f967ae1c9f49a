import { z } from "zod";
import { COLDEST, HOTTEST } from "../units/temperature";

const celsius = z.number().int().min(COLDEST).max(HOTTEST);

/** The schema of a range, in hundredths of °C. Schemas stand apart from what pages only show, which loads without them. */
export const temperatureRange = z
  .object({ low: celsius, high: celsius })
  .refine((value) => value.low <= value.high, { path: ["high"], error: "The upper end of a range cannot be below its lower end." });
