import { renameKeys } from "../../log/stored";
import { batchEvent, notPoured } from "./event-type";

/** Where the jars stand. */
export const located = batchEvent({
  kind: "located",
  formerName: "placed",
  version: 2,
  payload: ({ z }) => z.object({ shelf: z.string().trim().max(60), sun: z.boolean(), draft: z.boolean() }),
  upcast: renameKeys({ draught: "draft" }),
  validate: (state) => notPoured(state, "put on a shelf"),
  apply: (state, { happenedAt, payload }) => {
    // One that was logged late is not where they stand now.
    if (!state.stands || state.stands.at <= happenedAt) state.stands = { at: happenedAt, shelf: payload.shelf };
    state.stood = { sun: (state.stood?.sun ?? false) || payload.sun, draft: (state.stood?.draft ?? false) || payload.draft };
  },
  describe: (payload) => ({
    what: payload.shelf ? `stands on ${payload.shelf}` : "where the jars stand",
    figure: [payload.sun ? "in the sun" : "", payload.draft ? "in a draft" : ""].filter(Boolean).join(", ") || "shade, no draft",
    tone: payload.sun ? "hot" : "ink",
  }),
  columns: (payload) => ({ what: [payload.shelf, payload.sun ? "sun" : "", payload.draft ? "draft" : ""].filter(Boolean).join(", ") }),
});
