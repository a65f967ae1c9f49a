import { outOf, stillOut, WENT, WENT_WORDS } from "../state";
import { closedOrder, orderEvent, packsWords } from "./event-type";

/** What became of packs that are out: sold, given away, sold as seconds, or come back. */
export const packsResolved = orderEvent({
  kind: "packsResolved",
  formerName: "went",
  version: 1,
  payload: ({ z }) =>
    z.object({
      sellable: z.uuid(),
      name: z.string().min(1).max(120),
      packs: z.number().int().min(1, "At least one.").max(100_000),
      to: z.enum(WENT),
      /** What one pack brought, in minor units; as priced where it is not said. */
      each: z.number().int().min(0).max(1e12).nullable().default(null),
      why: z.string().trim().max(200).default(""),
    }),
  validate: (state, payload) => {
    const available = outOf(state, payload.sellable);
    return (
      closedOrder(state) ??
      (payload.packs > available
        ? {
            field: "packs",
            message:
              available <= 0 ? `No ${payload.name} is out.` : `${available} × ${payload.name} ${available === 1 ? "is" : "are"} out: no more can be counted.`,
          }
        : null)
    );
  },
  apply: (state, { happenedAt, payload }) => {
    const mine = state.finishedGoods.filter((each) => each.sellable === payload.sellable);
    let rest = payload.packs;
    // What came first is sold first; what comes back is what would have been sold last.
    for (const each of payload.to === "back" ? mine.reverse() : mine) {
      const packs = Math.min(rest, Math.max(0, stillOut(each)));
      each[payload.to] += packs;
      if (payload.to === "sold" || payload.to === "second") each.money += packs * (payload.each ?? each.price ?? 0);
      rest -= packs;
    }
    if (rest > 0) state.unplaced[payload.sellable] = (state.unplaced[payload.sellable] ?? 0) + rest;
    if (payload.to === "sold") state.soldAt[payload.sellable] = happenedAt;
  },
  correctableField: { field: "packs", label: "Packs", is: "count", of: "packs" },
  describe: (payload) => ({ what: `${packsWords(payload.packs, payload.name)} ${WENT_WORDS[payload.to]}`, ...(payload.why ? { figure: payload.why } : {}) }),
  columns: (payload) => ({ what: `${packsWords(payload.packs, payload.name)} ${WENT_WORDS[payload.to]}${payload.why ? `; ${payload.why}` : ""}` }),
});
