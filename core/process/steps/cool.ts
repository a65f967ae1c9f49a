import { oneStep, stepType } from "../step-type";

/** Cools or reheats the pot to a range. Put back on the heat where it fell below. */
export const cool = stepType({
  kind: "cool",
  verb: "cool",
  params: ({ z, temperatureRange }) => z.object({ range: temperatureRange }),
  fields: [{ key: "range", label: "Pour at", is: "range" }],
  first: { range: { low: 5_700, high: 6_300 } },
  prompts: (step) => oneStep(step, "bring to the pour range", "read", { range: step.range }),
  why: "Poured too hot, tops sink and roughen; too cool, the wall shows rings. If it fell too far, put it back on the heat and watch it.",
  heat: { range: "pour", isForPour: true },
  records: "pour_c",
  joins: ["pour", "pour-again"],
  takes: () => ({ minutes: 1, needs: ["hands", "pitcher"] }),
});
