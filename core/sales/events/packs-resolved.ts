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
  validate: (state, one) => {
    const there = outOf(state, one.sellable);
    return (
      closedOrder(state) ??
      (one.packs > there
        ? {
            field: "packs",
            message: there <= 0 ? `No ${one.name} is out.` : `${there} × ${one.name} ${there === 1 ? "is" : "are"} out: no more can be counted.`,
          }
        : null)
    );
  },
  apply: (state, { happenedAt, payload: one }) => {
    const mine = state.finishedGoods.filter((each) => each.sellable === one.sellable);
    let rest = one.packs;
    // What came first is sold first; what comes back is what would have been sold last.
    for (const each of one.to === "back" ? mine.reverse() : mine) {
      const packs = Math.min(rest, Math.max(0, stillOut(each)));
      each[one.to] += packs;
      if (one.to === "sold" || one.to === "second") each.money += packs * (one.each ?? each.price ?? 0);
      rest -= packs;
    }
    if (rest > 0) state.unplaced[one.sellable] = (state.unplaced[one.sellable] ?? 0) + rest;
    if (one.to === "sold") state.soldAt[one.sellable] = happenedAt;
  },
  correctableField: { field: "packs", label: "Packs", is: "count", of: "packs" },
  describe: (one) => ({ what: `${packsWords(one.packs, one.name)} ${WENT_WORDS[one.to]}`, ...(one.why ? { figure: one.why } : {}) }),
  columns: (one) => ({ what: `${packsWords(one.packs, one.name)} ${WENT_WORDS[one.to]}${one.why ? `; ${one.why}` : ""}` }),
});
