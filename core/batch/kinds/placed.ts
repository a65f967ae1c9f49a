import { batchKind, notPoured } from "./kind";

/** Where the jars stand. */
export const placed = batchKind({
  kind: "placed",
  version: 1,
  payload: ({ z }) => z.object({ shelf: z.string().trim().max(60), sun: z.boolean(), draught: z.boolean() }),
  refuse: (facts) => notPoured(facts, "put on a shelf"),
  apply: (facts, { happenedAt, payload: one }) => {
    // One that was put down late is not where they stand now.
    if (!facts.stands || facts.stands.at <= happenedAt) facts.stands = { at: happenedAt, shelf: one.shelf };
    facts.stood = { sun: (facts.stood?.sun ?? false) || one.sun, draught: (facts.stood?.draught ?? false) || one.draught };
  },
  told: (one) => ({
    what: one.shelf ? `stands on ${one.shelf}` : "where the jars stand",
    figure: [one.sun ? "in the sun" : "", one.draught ? "in a draught" : ""].filter(Boolean).join(", ") || "shade, no draught",
    tone: one.sun ? "hot" : "ink",
  }),
  columns: (one) => ({ what: [one.shelf, one.sun ? "sun" : "", one.draught ? "draught" : ""].filter(Boolean).join(", ") }),
});
