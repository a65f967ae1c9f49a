import { z } from "zod";
import { batchKind } from "./kind";

/** Words. Taken at any time, also into a closed record. */
export const note = batchKind({
  kind: "note",
  version: 1,
  payload: z.object({ text: z.string().trim().min(1, "Write something.").max(2_000) }),
  apply: () => {},
  told: (payload) => ({ what: `“${payload.text}”` }),
  columns: (payload) => ({ what: payload.text }),
});
