import { burningIn } from "../facts";
import { closedTrial, trialKind } from "./kind";

/** A trial is closed: nothing of it burns any more. */
export const closed = trialKind({
  kind: "closed",
  version: 1,
  payload: ({ z }) => z.object({}),
  refuse: (facts) =>
    closedTrial(facts) ??
    (Object.values(facts.testers).some((one) => burningIn(one)) ? { field: "kind", message: "Something of it still burns. Put it out first." } : null),
  apply: (facts, { id, happenedAt }) => {
    facts.closed = { at: happenedAt, id };
  },
  told: () => ({ what: "trial closed" }),
  columns: () => ({ what: "closed" }),
});
