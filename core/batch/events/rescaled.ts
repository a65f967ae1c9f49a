import { LARGEST_MASS_MG } from "../../units/mass";
import { partKey } from "../state";
import { atWork, batchEvent } from "./event-type";

/** The rest of a pot set to what was weighed too much of one component: the new weights to reach, in mg. */
export const rescaled = batchEvent({
  kind: "rescaled",
  version: 1,
  payload: ({ z }) =>
    z.object({
      pot: z.number().int().min(0).max(7),
      targets: z
        .array(z.object({ componentId: z.uuid(), mg: z.number().int().min(1).max(LARGEST_MASS_MG) }))
        .min(1)
        .max(40),
    }),
  validate: (state, payload, plan) =>
    payload.targets.every((target) => plan.pots[payload.pot]?.components.some((part) => part.id === target.componentId && !part.count))
      ? atWork(state)
      : { field: "targets", message: "This batch has no such material." },
  apply: (state, { payload }) => {
    for (const target of payload.targets) state.targets[partKey(payload.pot, target.componentId)] = target.mg;
  },
  describe: (payload, plan, say) => ({
    what: `amounts set to what was weighed: ${payload.targets
      .map((target) => `${plan.pots[payload.pot]?.components.find((part) => part.id === target.componentId)?.name ?? "something"} ${say.g(target.mg)}`)
      .join(", ")}`,
  }),
  columns: (payload) => ({ grams: payload.targets.reduce((sum, item) => sum + item.mg, 0) / 1_000 }),
});
