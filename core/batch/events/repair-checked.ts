import { batchEvent, closedAlready } from "./event-type";

/** A second look at what was mended: on how many jars it held. */
export const repairChecked = batchEvent({
  kind: "repairChecked",
  formerName: "rechecked",
  version: 1,
  payload: ({ z }) => z.object({ repair: z.uuid().describe("the entry of the repair"), held: z.number().int().min(0) }),
  validate: (state, one) => {
    const repair = state.repairs.find((other) => other.eventId === one.repair);
    if (!repair) return { field: "repair", message: "This batch has no such repair." };
    return one.held > repair.jars ? { field: "held", message: `${repair.jars} were mended.` } : closedAlready(state);
  },
  apply: (state, { happenedAt, payload: one }) => {
    const repair = state.repairs.find((other) => other.eventId === one.repair);
    if (repair) Object.assign(repair, { held: one.held, checkedAt: happenedAt });
  },
  describe: (one) => ({ what: "second look at a repair", figure: `held on ${one.held}` }),
  columns: (one) => ({ what: `held ${one.held}` }),
});
