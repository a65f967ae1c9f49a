import { closedTrial, trialEvent } from "./event-type";

/** Somebody confirms that they are with the burning candles. */
export const present = trialEvent({
  kind: "present",
  version: 1,
  payload: ({ z }) => z.object({}),
  validate: closedTrial,
  apply: (state, { happenedAt }) => {
    state.presentAt = happenedAt;
  },
  describe: () => ({ what: "somebody is with the burning candles" }),
  columns: () => ({ what: "present" }),
});
