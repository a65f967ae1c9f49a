import { titleOf, totalOf } from "../plan";
import { upcastPlan } from "../upcast";
import { batchEvent } from "./event-type";

/** The start, with everything the batch rests on. Exactly one to a batch. */
export const started = batchEvent({
  kind: "started",
  version: 3,
  payload: ({ z, batchPlan }) => z.object({ plan: batchPlan }),
  upcast: (old) => ({ plan: upcastPlan(old.plan) }),
  validate: () => ({ field: "kind", message: "This batch has been started already." }),
  apply: () => {},
  describe: ({ plan }, _plan, say) => ({
    what: `started from ${titleOf(plan)}, version ${plan.pots.map((pot) => pot.versionNumber).join(" and ")}`,
    figure: say.g(totalOf(plan)),
  }),
  columns: ({ plan }) => ({ what: `${titleOf(plan)}, version ${plan.pots.map((pot) => pot.versionNumber).join(" and ")}`, grams: totalOf(plan) / 1_000 }),
});
