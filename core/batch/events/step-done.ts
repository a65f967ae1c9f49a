import { stepTypeOf } from "../../process/steps";
import { upcastStepId } from "../../process/upcast";
import { batchEvent, closedAlready, noSuchStep, stepOf } from "./event-type";

/** A step that needs no number was done: pierced, tilted, unmolded, waited out. */
export const stepDone = batchEvent({
  kind: "stepDone",
  formerName: "did",
  version: 2,
  payload: ({ z }) => z.object({ step: z.string().max(60), note: z.string().trim().max(500).optional() }),
  upcast: upcastStepId,
  validate: (state, payload, plan) => closedAlready(state) ?? (stepOf(plan, payload.step) ? null : { ...noSuchStep }),
  apply: (state, { payload, happenedAt }) => {
    state.did[payload.step] = { at: happenedAt, ...(payload.note ? { note: payload.note } : {}) };
  },
  correctableField: null,
  describe: (payload, plan) => {
    const step = stepOf(plan, payload.step);
    const name = step
      ? (stepTypeOf(step.kind)
          .prompts(step as never, plan)
          .at(-1)?.name ?? step.kind)
      : payload.step;
    return { what: `done: ${name}${payload.note ? `, ${payload.note}` : ""}` };
  },
  columns: (payload) => ({ what: payload.note ? `${payload.step}: ${payload.note}` : payload.step }),
});
