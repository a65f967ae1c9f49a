import { note } from "../../log/kinds/note";
import { withdrawn } from "../../log/kinds/withdrawn";
import type { BatchFacts } from "../facts";
import type { BatchPlan } from "../plan";
import { abandoned } from "./abandoned";
import { closed } from "./closed";
import { counted } from "./counted";
import { did } from "./did";
import { fated } from "./fated";
import { flaw } from "./flaw";
import { heated } from "./heated";
import { looked } from "./looked";
import { moved } from "./moved";
import { packed } from "./packed";
import { placed } from "./placed";
import { poured } from "./poured";
import { prepared } from "./prepared";
import { read } from "./read";
import { rechecked } from "./rechecked";
import { released } from "./released";
import { repaired } from "./repaired";
import { rescaled } from "./rescaled";
import { room } from "./room";
import { seen } from "./seen";
import { smelled } from "./smelled";
import { started } from "./started";
import { stirred } from "./stirred";
import { weighed } from "./weighed";

/** Everything that can happen to a batch. A new kind is its file and this line. */
export const BATCH_KINDS = [
  started,
  weighed,
  counted,
  rescaled,
  read,
  stirred,
  did,
  heated,
  moved,
  prepared,
  poured,
  flaw,
  seen,
  looked,
  repaired,
  rechecked,
  placed,
  room,
  smelled,
  fated,
  packed,
  released,
  note<BatchFacts, BatchPlan>(),
  closed,
  abandoned,
  withdrawn<BatchFacts, BatchPlan>(),
] as const;
