import { upcastStepId } from "../../process/upcast";
import { SECONDS, writeDuration } from "../../units/duration";
import { atWork, batchEvent, noSuchStep, stepOf } from "./event-type";

/** Stirred, for so many seconds. Several of one step add up. */
export const stirred = batchEvent({
  kind: "stirred",
  version: 3,
  payload: ({ z }) =>
    z.object({
      step: z.string().max(60).nullable(),
      seconds: z.number().int().min(1, "Enter how long it was stirred.").max(SECONDS.h),
      hard: z.boolean().optional().describe("so that air went in"),
    }),
  upcast: (old) => ({ step: "stir", ...upcastStepId(old) }),
  validate: (state, payload, plan) => atWork(state) ?? (payload.step === null || stepOf(plan, payload.step) ? null : noSuchStep),
  apply: (state, { payload, happenedAt }) => {
    const key = payload.step ?? "stir";
    state.did[key] = {
      at: happenedAt,
      seconds: (state.did[key]?.seconds ?? 0) + payload.seconds,
      ...(payload.hard === undefined ? {} : { hard: payload.hard }),
    };
  },
  correctableField: { field: "seconds", label: "How long", is: "duration" },
  describe: (payload) => ({
    what: payload.hard === undefined ? "stirred" : payload.hard ? "stirred hard" : "stirred gently",
    figure: writeDuration(payload.seconds),
  }),
  columns: (payload) => ({ seconds: payload.seconds }),
});
