import { abandoned } from "./abandoned";
import { closed } from "./closed";
import { counted } from "./counted";
import { did } from "./did";
import { flaw } from "./flaw";
import { heated } from "./heated";
import { looked } from "./looked";
import { moved } from "./moved";
import { note } from "./note";
import { poured } from "./poured";
import { prepared } from "./prepared";
import { read } from "./read";
import { rescaled } from "./rescaled";
import { started } from "./started";
import { stirred } from "./stirred";
import { weighed } from "./weighed";
import { withdrawn } from "./withdrawn";

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
  looked,
  note,
  closed,
  abandoned,
  withdrawn,
] as const;
