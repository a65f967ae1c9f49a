import { MELT_METHOD_NAMES, MELT_METHODS } from "../melt-method";
import { atWork, batchEvent } from "./event-type";

/** The wax of a pot was melted: by which method, and whether water got into it; null where nobody looked. */
export const melted = batchEvent({
  kind: "melted",
  version: 1,
  payload: ({ z }) => z.object({ pot: z.number().int().min(0).max(7).default(0), how: z.enum(MELT_METHOD_NAMES), water: z.boolean().nullable().default(null) }),
  validate: (state, payload, plan) => atWork(state) ?? (payload.pot < plan.pots.length ? null : { field: "pot", message: "This batch has no such pot." }),
  apply: (state, { payload: { pot, how, water }, happenedAt }) => {
    state.melted[pot] = { at: happenedAt, how, water };
  },
  describe: ({ how, water }) => ({ what: `melted ${MELT_METHODS[how]}${water === null ? "" : water ? ", water got in" : ", no water got in"}` }),
  columns: ({ how, water }) => ({ what: water === null ? how : `${how}, ${water ? "water got in" : "no water"}` }),
});
