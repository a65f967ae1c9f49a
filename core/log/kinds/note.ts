import type { Kind } from "../log";

/** Words. Taken at any time, also into a closed record, by every subject. */
export const note = <F, C>(): Kind<"note", { text: string }, F, C> => ({
  kind: "note",
  version: 1,
  payload: ({ z }) => z.object({ text: z.string().trim().min(1, "Write something.").max(2_000) }),
  apply: () => {},
  told: (one) => ({ what: `“${one.text}”` }),
  columns: (one) => ({ what: one.text }),
});
