import { optionsOf } from "../plan";
import { trialKind } from "./kind";

/** A trial is begun: what it varies, its protocol and its testers are frozen. */
export const started = trialKind({
  kind: "started",
  version: 1,
  payload: ({ z, trialPlan }) => z.object({ plan: trialPlan }),
  apply: () => {},
  told: (_payload, plan) => ({
    what: "trial begun",
    figure: `${plan.testers.length} ${plan.testers.length === 1 ? "tester" : "testers"}, ${plan.varies ?? "nothing varied"}`,
  }),
  columns: (_payload, plan) => ({ what: `${plan.name}: ${optionsOf(plan).length} options, ${plan.testers.length} testers` }),
});
