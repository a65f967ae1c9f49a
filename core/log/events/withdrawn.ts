import type { EventType } from "../log";

/** Removes the entry that it corrects: `delete` leaves nothing in its place, `undo` restores what stood there before a correction. */
export const withdrawn = <F, C>(): EventType<"withdrawn", { why: string; mode: "delete" | "undo" }, F, C> => ({
  kind: "withdrawn",
  version: 3,
  payload: ({ z }) => z.object({ why: z.string().max(500).default(""), mode: z.enum(["delete", "undo"]).default("delete") }),
  // Version 2 said by `whole` whether the entry goes with all its corrections; version 1 knew nothing else.
  upcast: ({ whole = true, ...old }) => ({ mode: whole ? "delete" : "undo", ...old }),
  apply: () => {},
  describe: (payload) => ({ what: `deleted${payload.why ? `: ${payload.why}` : ""}` }),
  columns: (payload) => ({ what: payload.why }),
});
