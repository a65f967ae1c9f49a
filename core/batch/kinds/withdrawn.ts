import { z } from "zod";
import { batchKind } from "./kind";

/** Takes the entry it corrects back without putting another in its place. An undo of a correction restores what was there before. */
export const withdrawn = batchKind({
  kind: "withdrawn",
  version: 2,
  payload: z.object({ why: z.string().max(500).default(""), whole: z.boolean().default(true) }),
  upcast: (old) => ({ whole: true, ...old }),
  apply: () => {},
  told: (payload) => ({ what: `taken back${payload.why ? `: ${payload.why}` : ""}` }),
  columns: (payload) => ({ what: payload.why }),
});
