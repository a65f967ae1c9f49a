import { oneStep, stepType } from "../step-type";

/** Melts the wax and heats it to a range. A pound of flakes takes 15 to 20 minutes in a double boiler: common practice, no source. */
export const heat = stepType({
  kind: "heat",
  verb: "heat",
  params: ({ z, temperatureRange }) => z.object({ range: temperatureRange }),
  fields: [{ key: "range", label: "Heat to", is: "range" }],
  first: { range: { low: 8_300, high: 8_700 } },
  prompts: (step) => oneStep(step, "heat", "read", { range: step.range }),
  why: "Stir first: a pot has hot and cold spots. Keep to one thermometer. Long above the maximum temperature scorches the wax.",
  caution: "Never leave melting wax. No water near it: a pot simmers, it does not boil. Smother a wax fire; never water.",
  heat: { range: "heat", isOnBurner: true },
  records: "heat_c",
  takes: (step, plan) => ({ minutes: Math.round(12 + ((plan.pots[step.pot ?? 0]?.totalMg ?? 0) / 453_592) * 5), needs: ["burner", "pitcher"] }),
});
