import { actKind, oneStep } from "../kind";

/** Cools or reheats the pot to a range. Put back on the heat where it fell below. */
export const cool = actKind({
  kind: "cool",
  verb: "cool",
  params: ({ z, temperatureRange }) => z.object({ range: temperatureRange }),
  fields: [{ key: "range", label: "Pour at", is: "range" }],
  first: { range: { low: 5_700, high: 6_300 } },
  steps: (act) => oneStep(act, "bring to the pour range", "read", { range: act.range }),
  why: "Poured too hot, tops sink and roughen; too cool, the wall shows rings. If it fell too far, put it back on the heat and watch it.",
  takes: () => ({ minutes: 1, needs: ["hands", "pitcher"] }),
});
