import { isPoured, leftInPot, loseFromPot } from "../loss";
import { batchEvent, closedAlready } from "./event-type";

/** The ways in which wax leaves a pot, or comes into one, other than by pouring. */
export const WAYS = {
  spilt: "spilled",
  melts: "left over, poured as melts and labeled",
  given: "into another pot of the same formula",
  taken: "topped up from another pot of the same formula",
  discarded: "thrown away",
} as const;
export type Way = keyof typeof WAYS;
export const WAY_NAMES = Object.keys(WAYS) as [Way, ...Way[]];

/** What a maker does after part of a pot is lost: weighs what is missing again, gives up the rest too and weighs all of it, or goes on with what is left. */
export const AGAIN = ["missing", "all", "none"] as const;
export type Again = (typeof AGAIN)[number];

/** Returns whether wax that went this way is lost to the pot. */
export const isLoss = (how: Way): boolean => how === "spilt" || how === "discarded";

/**
 * Wax that went elsewhere than was planned. Milligrams, where it was weighed. What is lost before the pot is poured leads back to weighing, unless it
 * says otherwise, and the material is drawn from stock again.
 */
export const transferred = batchEvent({
  kind: "transferred",
  formerName: "moved",
  version: 1,
  payload: ({ z }) =>
    z
      .object({
        pot: z.number().int().min(0).max(7).default(0),
        how: z.enum(WAY_NAMES),
        mg: z.number().int().min(1).max(100_000_000, "At most {100 kg|220 lb}.").nullable(),
        /** The batch it went to or came from, by its number. */
        other: z.number().int().min(1).max(999_999_999).nullable(),
        again: z.enum(AGAIN).optional(),
        /** Scraped up and put back on the shelf, as a lot of its own. */
        backMg: z.number().int().min(1).max(100_000_000, "At most {100 kg|220 lb}.").optional(),
      })
      .superRefine((value, context) => {
        if ((value.how === "given" || value.how === "taken") && value.other === null)
          context.addIssue({ code: "custom", path: ["other"], message: "Enter the number of the pot." });
      }),
  validate: (state, payload, plan) => {
    const closed = closedAlready(state);
    if (closed) return closed;
    if (payload.pot >= plan.pots.length) return { field: "pot", message: "This batch has no such pot." };
    if (payload.backMg !== undefined && (!isLoss(payload.how) || (payload.mg !== null && payload.backMg > payload.mg)))
      return { field: "backMg", message: "You cannot put back more than was lost." };
    const weighsAgain =
      isLoss(payload.how) &&
      payload.again !== "none" &&
      payload.again !== "all" &&
      !isPoured(plan, state, payload.pot) &&
      leftInPot(plan, state, payload.pot) > 0;
    return weighsAgain && payload.mg === null
      ? { field: "mg", message: "Enter how much was lost, or that all of it was, so that the weights to add can be calculated." }
      : null;
  },
  apply: (state, { id, payload, happenedAt }, plan) => {
    state.moved.push({ eventId: id, at: happenedAt, ...payload });
    // One of before the weight was asked for says nothing of how much to weigh again.
    if (isLoss(payload.how) && payload.again !== "none" && (payload.mg !== null || payload.again === "all"))
      loseFromPot(plan, state, payload.pot, payload.again === "all" ? null : payload.mg);
  },
  describe: (payload, _plan, say) => ({
    what: `wax ${WAYS[payload.how]}${payload.other === null ? "" : ` (${payload.other})`}`,
    figure: [
      payload.mg === null ? (payload.again === "all" ? "all of it" : "") : say.g(payload.mg),
      payload.backMg === undefined ? "" : `${say.g(payload.backMg)} of it back to stock`,
    ]
      .filter(Boolean)
      .join(", "),
  }),
  columns: (payload) => ({
    what: payload.other === null ? payload.how : `${payload.how} ${payload.other}`,
    ...(payload.mg === null ? {} : { grams: payload.mg / 1_000 }),
  }),
});
