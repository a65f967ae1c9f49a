import { batchEvent, closedAlready } from "./event-type";

/** A repair was checked later: on how many jars it held. */
export const repairChecked = batchEvent({
  kind: "repairChecked",
  formerName: "rechecked",
  version: 1,
  payload: ({ z }) => z.object({ repair: z.uuid().describe("the entry of the repair"), held: z.number().int().min(0) }),
  validate: (state, payload) => {
    const repair = state.repairs.find((other) => other.eventId === payload.repair);
    if (!repair) return { field: "repair", message: "This batch has no such repair." };
    return payload.held > repair.jars ? { field: "held", message: `${repair.jars} were reworked.` } : closedAlready(state);
  },
  apply: (state, { happenedAt, payload }) => {
    const repair = state.repairs.find((other) => other.eventId === payload.repair);
    if (repair) Object.assign(repair, { held: payload.held, checkedAt: happenedAt });
  },
  describe: (payload) => ({ what: "second look at a repair", figure: `held on ${payload.held}` }),
  columns: (payload) => ({ what: `held ${payload.held}` }),
});
