import { actKindOf } from "../../process/acts";
import { actOf, batchKind, closedAlready, noSuchAct } from "./kind";

/** An act that needs no number was done: pierced, tilted, unmoulded, waited out. */
export const did = batchKind({
  kind: "did",
  version: 1,
  payload: ({ z }) => z.object({ act: z.string().max(60), note: z.string().trim().max(500).optional() }),
  refuse: (facts, payload, plan) => closedAlready(facts) ?? (actOf(plan, payload.act) ? null : { ...noSuchAct }),
  apply: (facts, { payload, happenedAt }) => {
    facts.did[payload.act] = { at: happenedAt, ...(payload.note ? { note: payload.note } : {}) };
  },
  told: (payload, plan) => {
    const act = actOf(plan, payload.act);
    const name = act
      ? (actKindOf(act.kind)
          .steps(act as never, plan)
          .at(-1)?.name ?? act.kind)
      : payload.act;
    return { what: `done: ${name}${payload.note ? `, ${payload.note}` : ""}` };
  },
  columns: (payload) => ({ what: payload.note ? `${payload.act}: ${payload.note}` : payload.act }),
});
