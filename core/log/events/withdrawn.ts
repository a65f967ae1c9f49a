import type { EventType } from "../log";

/** Takes the entry it corrects back without putting another in its place. An undo of a correction restores what was there before. */
export const withdrawn = <F, C>(): EventType<"withdrawn", { why: string; whole: boolean }, F, C> => ({
  kind: "withdrawn",
  version: 2,
  payload: ({ z }) => z.object({ why: z.string().max(500).default(""), whole: z.boolean().default(true) }),
  upcast: (old) => ({ whole: true, ...old }),
  apply: () => {},
  describe: (one) => ({ what: `taken back${one.why ? `: ${one.why}` : ""}` }),
  columns: (one) => ({ what: one.why }),
});
