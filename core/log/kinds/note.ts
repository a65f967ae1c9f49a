import { z } from "zod";
import type { Kind } from "../log";

const payload = z.object({ text: z.string().trim().min(1, "Write something.").max(2_000) });

/** Words. Taken at any time, also into a closed record, by every subject. */
export const note = <F, C>(): Kind<"note", z.output<typeof payload>, F, C> => ({
  kind: "note",
  version: 1,
  payload,
  apply: () => {},
  told: (one) => ({ what: `“${one.text}”` }),
  columns: (one) => ({ what: one.text }),
});
