import { batchEvent, notPoured } from "./event-type";

/** Where the jars stand. */
export const located = batchEvent({
  kind: "located",
  formerName: "placed",
  version: 2,
  payload: ({ z }) => z.object({ shelf: z.string().trim().max(60), sun: z.boolean(), draft: z.boolean() }),
  upcast: ({ draught, ...old }) => ({ draft: draught, ...old }),
  validate: (state) => notPoured(state, "put on a shelf"),
  apply: (state, { happenedAt, payload: one }) => {
    // One that was put down late is not where they stand now.
    if (!state.stands || state.stands.at <= happenedAt) state.stands = { at: happenedAt, shelf: one.shelf };
    state.stood = { sun: (state.stood?.sun ?? false) || one.sun, draft: (state.stood?.draft ?? false) || one.draft };
  },
  describe: (one) => ({
    what: one.shelf ? `stands on ${one.shelf}` : "where the jars stand",
    figure: [one.sun ? "in the sun" : "", one.draft ? "in a draft" : ""].filter(Boolean).join(", ") || "shade, no draft",
    tone: one.sun ? "hot" : "ink",
  }),
  columns: (one) => ({ what: [one.shelf, one.sun ? "sun" : "", one.draft ? "draft" : ""].filter(Boolean).join(", ") }),
});
