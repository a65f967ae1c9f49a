import { bandsOf, rangeName } from "../../process/process";
import { CUE_NAMES, CUES } from "../cues";
import { atWork, batchEvent, noSuchStep, stepOf } from "./event-type";

/** A step with a range was judged without a thermometer. It counts as done, and is never taken for a temperature. */
export const observed = batchEvent({
  kind: "observed",
  version: 1,
  payload: ({ z }) =>
    z.object({
      step: z.string().max(60),
      cues: z.array(z.enum(CUE_NAMES)).min(1, "Choose what you saw or felt.").max(CUE_NAMES.length),
    }),
  validate: (state, payload, plan) => atWork(state) ?? (bandsOf(plan.process).some((band) => band.step === payload.step) ? null : noSuchStep),
  apply: (state, { payload, happenedAt }) => {
    state.observed[payload.step] = { at: happenedAt, cues: payload.cues };
    state.onHeat = null;
  },
  describe: (payload, plan) => {
    const step = stepOf(plan, payload.step);
    return { what: `${step ? rangeName(step) : payload.step}, by eye and hand: ${payload.cues.map((cue) => CUES[cue]).join(", ")}` };
  },
  columns: (payload) => ({ what: payload.cues.join(", ") }),
});
