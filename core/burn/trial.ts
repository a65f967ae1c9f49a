import { type BodyOf, defineAggregate } from "../log/aggregate";
import type { EventOf, Entry as LogEntry } from "../log/log";
import { TRIAL_EVENTS } from "./events";
import type { TrialPlan } from "./plan";
import { initialTrialState, type TrialState } from "./state";

export type TrialBody = BodyOf<typeof TRIAL_EVENTS>;
export type TrialEvent = EventOf & TrialBody;
export type TrialEntry = LogEntry<TrialEvent>;

/** A burn trial as an aggregate. */
export const TRIAL = defineAggregate({
  what: "trial",
  eventTypes: TRIAL_EVENTS,
  first: initialTrialState,
  planOf: ({ plan }: { plan: TrialPlan }) => plan,
  startNotDeletable: "The start of a trial cannot be deleted. Close it, and say in a note why.",
  reopened: (state: TrialState) => ({
    ...state,
    closed: null,
    testCandles: Object.fromEntries(Object.entries(state.testCandles).map(([key, state]) => [key, { ...state, stopped: null }])),
  }),
});
