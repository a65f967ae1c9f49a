import { titleOf, totalOf, upcastPlan } from "../plan";
import { batchKind } from "./kind";

/** The start, with everything the batch rests on. Exactly one to a batch. */
export const started = batchKind({
  kind: "started",
  version: 2,
  payload: ({ z, batchPlan }) => z.object({ plan: batchPlan }),
  upcast: (old) => ({ plan: upcastPlan(old.plan) }),
  refuse: () => ({ field: "kind", message: "This batch has been started already." }),
  apply: () => {},
  told: ({ plan }, _plan, say) => ({
    what: `started from ${titleOf(plan)}, version ${plan.pots.map((pot) => pot.versionNumber).join(" and ")}`,
    figure: say.g(totalOf(plan)),
  }),
  columns: ({ plan }) => ({ what: `${titleOf(plan)}, version ${plan.pots.map((pot) => pot.versionNumber).join(" and ")}`, grams: totalOf(plan) / 1_000 }),
});
