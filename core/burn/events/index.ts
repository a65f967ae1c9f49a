import { note } from "../../log/events/note";
import { withdrawn } from "../../log/events/withdrawn";
import type { TrialPlan } from "../plan";
import type { TrialState } from "../state";
import { checked } from "./checked";
import { closed } from "./closed";
import { codesRevealed } from "./codes-revealed";
import { decided } from "./decided";
import { extinguished } from "./extinguished";
import { lit } from "./lit";
import { present } from "./present";
import { started } from "./started";
import { stopped } from "./stopped";
import { throwScored } from "./throw-scored";
import { weighed } from "./weighed";

/** All event types of a trial. A new event type is a file and a line here. */
export const TRIAL_EVENTS = [
  started,
  lit,
  checked,
  weighed,
  extinguished,
  present,
  stopped,
  throwScored,
  codesRevealed,
  decided,
  note<TrialState, TrialPlan>(),
  closed,
  withdrawn<TrialState, TrialPlan>(),
] as const;
