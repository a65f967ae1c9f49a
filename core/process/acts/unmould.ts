import { actKind, oneStep } from "../kind";

/** Takes the candles out of their moulds, which are then free again. */
export const unmould = actKind({
  kind: "unmould",
  verb: "unmould",
  params: ({ z }) => z.object({}),
  fields: [],
  first: {},
  steps: (act) => oneStep(act, "unmould", "did"),
  why: "It pulls away from the wall when it is ready. What sticks goes five to ten minutes into a refrigerator; knead a soft mould.",
  takes: (_act, plan) => ({ minutes: Math.ceil(1 + plan.products.reduce((sum, one) => sum + one.count, 0) / 4), needs: ["hands", "table"] }),
});
