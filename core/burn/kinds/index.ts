import { note } from "../../log/kinds/note";
import { withdrawn } from "../../log/kinds/withdrawn";
import type { TrialFacts } from "../facts";
import type { TrialPlan } from "../plan";
import { closed } from "./closed";
import { decided } from "./decided";
import { lit } from "./lit";
import { looked } from "./looked";
import { out } from "./out";
import { present } from "./present";
import { rated } from "./rated";
import { started } from "./started";
import { stopped } from "./stopped";
import { unmasked } from "./unmasked";
import { weighed } from "./weighed";

/** Everything that can happen to a trial. A new kind is its file and this line. */
export const TRIAL_KINDS = [
  started,
  lit,
  looked,
  weighed,
  out,
  present,
  stopped,
  rated,
  unmasked,
  decided,
  note<TrialFacts, TrialPlan>(),
  closed,
  withdrawn<TrialFacts, TrialPlan>(),
] as const;
