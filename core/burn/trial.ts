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
  reopened: (facts: TrialFacts) => ({
    ...facts,
    closed: null,
    testers: Object.fromEntries(Object.entries(facts.testers).map(([key, one]) => [key, { ...one, stopped: null }])),
  }),
});
