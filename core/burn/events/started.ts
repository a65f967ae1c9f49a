import { variantsOf } from "../plan";
import { upcastTrialPlan } from "../upcast";
import { trialEvent } from "./event-type";

/** A trial is begun: what it varies, its protocol and its test candles are frozen. */
export const started = trialEvent({
  kind: "started",
  version: 2,
  payload: ({ z, trialPlan }) => z.object({ plan: trialPlan }),
  upcast: ({ plan }) => ({ plan: upcastTrialPlan(plan) }),
  apply: () => {},
  describe: (_payload, plan) => ({
    what: "trial started",
    figure: `${plan.testCandles.length} ${plan.testCandles.length === 1 ? "test candle" : "test candles"}, ${plan.varies ?? "nothing varied"}`,
  }),
  columns: (_payload, plan) => ({ what: `${plan.name}: ${variantsOf(plan).length} variants, ${plan.testCandles.length} test candles` }),
});
