import { z } from "zod";

const celsius = z.number().min(-50, "At least −50 °C.").max(400, "At most 400 °C.");

/** What is known of a pot: readings on a clock of their own, in minutes, and the temperatures that are waited for. */
export const forecastRequest = z
  .object({
    ambient_c: celsius.describe("the room, °C"),
    mass_g: z.number().min(1, "At least 1 g.").max(100_000, "At most 100 kg.").optional().describe("what is in the pot; a kilogram where nothing is said"),
    readings: z
      .array(z.object({ minute: z.number().min(-100_000).max(1_000_000), celsius }))
      .min(1, "At least one reading.")
      .max(20_000, "At most 20000 readings."),
    events: z
      .array(
        z.object({
          minute: z.number().min(-100_000).max(1_000_000),
          oil_g: z.number().positive("Above 0 g.").max(100_000),
          oil_c: celsius.describe("how warm the oil was"),
        }),
      )
      .max(20)
      .optional()
      .describe("cool oil that went in between readings; its weight is part of mass_g. Without it a fall at once is noticed as such"),
    sets_c: celsius.optional().describe("from where down the wax sets, where that is known: it then gives off heat and cools slower"),
    targets_c: z.array(celsius).min(1, "At least one temperature.").max(20, "At most 20 temperatures."),
  })
  .superRefine((value, context) => {
    for (const [index, reading] of value.readings.entries())
      if (index > 0 && reading.minute < (value.readings[index - 1]?.minute ?? 0))
        context.addIssue({ code: "custom", path: ["readings", index, "minute"], message: "Readings stand in the order of their minutes." });
  });

const minute = z.number().nullable();
export const forecastAnswer = z.object({
  targets: z.array(
    z.object({
      celsius: z.number(),
      minute: minute.describe("when it is reached, on the readings' clock; when it was passed, where it was; null where it never is"),
      low: minute.describe("in four of five cases not before"),
      high: minute.describe("in four of five cases not after"),
      reason: z.string().optional(),
    }),
  ),
  fit: z.object({
    state: z.enum(["cooling", "heating"]),
    readings_used: z.number().int(),
    noise_c: z.number().describe("°C, by which readings miss the law"),
    rate_c_per_min: z.number().nullable().describe("°C a minute at 40 °C above the room"),
    bend: z.number().nullable().describe("0: Newton's law; about 0.25: free convection"),
  }),
  steps: z
    .array(z.object({ minute: z.number(), by_c: z.number() }))
    .optional()
    .describe("falls at once that no pot cools by, and that nobody said: something cool went in"),
  suspect_readings: z.array(z.number().int()).describe("by their place, counted from 0: not used, to be looked at again"),
});
