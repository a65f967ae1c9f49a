import { closedTrial, trialEvent } from "./event-type";

/** The codes on the jars were revealed: scorers know from now on which candle is which. */
export const codesRevealed = trialEvent({
  kind: "codesRevealed",
  formerName: "unmasked",
  version: 1,
  payload: ({ z }) => z.object({}),
  validate: (state) => closedTrial(state) ?? (state.codesRevealedAt ? { field: "kind", message: "The codes were revealed already." } : null),
  apply: (state, { happenedAt }) => {
    state.codesRevealedAt = happenedAt;
  },
  describe: () => ({ what: "codes revealed" }),
  columns: () => ({ what: "unmasked" }),
});
