import { variantsOf } from "../plan";
import { trialEvent } from "./event-type";

/** A trial is begun: what it varies, its protocol and its testers are frozen. */
export const started = trialEvent({
  kind: "started",
  version: 1,
  payload: ({ z, trialPlan }) => z.object({ plan: trialPlan }),
  apply: () => {},
  describe: (_payload, plan) => ({
    what: "trial begun",
    figure: `${plan.testers.length} ${plan.testers.length === 1 ? "tester" : "testers"}, ${plan.varies ?? "nothing varied"}`,
  }),
  columns: (_payload, plan) => ({ what: `${plan.name}: ${variantsOf(plan).length} options, ${plan.testers.length} testers` }),
});
