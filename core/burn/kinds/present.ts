import { closedTrial, trialKind } from "./kind";

/** Somebody says that they are there, with what burns. */
export const present = trialKind({
  kind: "present",
  version: 1,
  payload: ({ z }) => z.object({}),
  refuse: closedTrial,
  apply: (facts, { happenedAt }) => {
    facts.presentAt = happenedAt;
  },
  told: () => ({ what: "somebody is with the flames" }),
  columns: () => ({ what: "present" }),
});
