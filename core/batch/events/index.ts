import { note } from "../../log/events/note";
import { withdrawn } from "../../log/events/withdrawn";
import type { BatchPlan } from "../plan";
import type { BatchState } from "../state";
import { abandoned } from "./abandoned";
import { closed } from "./closed";
import { counted } from "./counted";
import { flaw } from "./flaw";
import { heated } from "./heated";
import { inspected } from "./inspected";
import { jarsInspected } from "./jars-inspected";
import { located } from "./located";
import { melted } from "./melted";
import { observed } from "./observed";
import { packed } from "./packed";
import { poured } from "./poured";
import { prepared } from "./prepared";
import { read } from "./read";
import { released } from "./released";
import { repairChecked } from "./repair-checked";
import { repaired } from "./repaired";
import { rescaled } from "./rescaled";
import { room } from "./room";
import { smelled } from "./smelled";
import { split } from "./split";
import { started } from "./started";
import { statusChanged } from "./status-changed";
import { stepDone } from "./step-done";
import { stirred } from "./stirred";
import { swapped } from "./swapped";
import { transferred } from "./transferred";
import { weighed } from "./weighed";

/** All event types of a batch. A new event type is a file and a line here. */
export const BATCH_EVENTS = [
  started,
  weighed,
  counted,
  rescaled,
  read,
  stirred,
  stepDone,
  heated,
  split,
  melted,
  observed,
  transferred,
  prepared,
  swapped,
  poured,
  flaw,
  jarsInspected,
  inspected,
  repaired,
  repairChecked,
  located,
  room,
  smelled,
  statusChanged,
  packed,
  released,
  note<BatchState, BatchPlan>(),
  closed,
  abandoned,
  withdrawn<BatchState, BatchPlan>(),
] as const;
