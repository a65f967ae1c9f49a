import { batchKind, closedAlready } from "./kind";

/** Where wax went, or came from, beside the jars. */
export const WAYS = {
  spilt: "spilt",
  melts: "left over, poured as melts and labelled",
  given: "into another pot of the same formula",
  taken: "topped up from another pot of the same formula",
  discarded: "thrown away",
} as const;
export type Way = keyof typeof WAYS;
export const WAY_NAMES = Object.keys(WAYS) as [Way, ...Way[]];

/** Wax that went elsewhere than was planned. Milligrams, where it was weighed. */
export const moved = batchKind({
  kind: "moved",
  version: 1,
  payload: ({ z }) =>
    z
      .object({
        pot: z.number().int().min(0).max(7).default(0),
        how: z.enum(WAY_NAMES),
        mg: z.number().int().min(1).max(100_000_000, "At most 100 kg.").nullable(),
        /** The batch it went to or came from, by its number. */
        other: z.number().int().min(1).max(999_999_999).nullable(),
      })
      .superRefine((value, context) => {
        if ((value.how === "given" || value.how === "taken") && value.other === null)
          context.addIssue({ code: "custom", path: ["other"], message: "Say which pot, by its number." });
      }),
  refuse: (facts) => closedAlready(facts),
  apply: (facts, { payload, happenedAt }) => {
    facts.moved.push({ at: happenedAt, ...payload });
  },
  told: (payload, _plan, say) => ({
    what: `wax ${WAYS[payload.how]}${payload.other === null ? "" : ` (${payload.other})`}`,
    ...(payload.mg === null ? {} : { figure: say.g(payload.mg, null) }),
  }),
  columns: (payload) => ({
    what: payload.other === null ? payload.how : `${payload.how} ${payload.other}`,
    ...(payload.mg === null ? {} : { grams: payload.mg / 1_000 }),
  }),
});
