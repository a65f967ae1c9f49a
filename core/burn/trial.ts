import type { EventOf, Entry as LogEntry } from "../log/log";
import { type BodyOf, subjectOf } from "../log/subject";
import { firstTrial, type TrialFacts } from "./facts";
import { TRIAL_KINDS } from "./kinds";
import type { TrialPlan } from "./plan";

export type TrialBody = BodyOf<typeof TRIAL_KINDS>;
export type TrialEvent = EventOf & TrialBody;
export type TrialEntry = LogEntry<TrialEvent>;

/** A burn trial as a subject of the log. */
export const TRIAL = subjectOf({
  what: "trial",
  kinds: TRIAL_KINDS,
  first: firstTrial,
  frozenOf: ({ plan }: { plan: TrialPlan }) => plan,
  startStays: "The start of a trial cannot be taken back. Close it, and say in a note why.",
  reopened: (facts: TrialFacts, target) => {
    // When it was lit, and put out, may be set right afterwards.
    const key = (target.payload as { tester?: string }).tester;
    const one = key === undefined ? undefined : facts.testers[key];
    if (!one || key === undefined) return { ...facts, closed: null };
    const at = Date.parse(target.happenedAt);
    const kept = target.kind === "lit" ? one.sessions.filter((each) => each.id !== target.id) : one.sessions;
    const sessions = kept.map((each) => {
      const during = each.out !== null && at >= Date.parse(each.litAt) && at <= Date.parse(each.out.at);
      return during && target.kind === "out" ? { ...each, out: null } : each;
    });
    return { ...facts, closed: null, testers: { ...facts.testers, [key]: { ...one, stopped: null, sessions } } };
  },
});
