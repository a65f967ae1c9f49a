import { closedOrder, orderEvent, packsWords } from "./event-type";

/** Packs go out: with an order, or to a market. Which packings they are of is said, so that every jar can be found again. */
export const shipped = orderEvent({
  kind: "shipped",
  formerName: "out",
  version: 1,
  payload: ({ z, stamp }) =>
    z.object({
      goods: z
        .array(
          z.object({
            packing: z.uuid(),
            sellable: z.uuid(),
            name: z.string().min(1).max(120),
            price: z.number().int().min(0).max(1e12).nullable(),
            pouredAt: stamp,
            packs: z.number().int().min(1).max(100_000),
          }),
        )
        .min(1)
        .max(500),
    }),
  validate: (state) => closedOrder(state),
  apply: (state, { payload }) => {
    for (const { packs, ...one } of payload.goods) {
      const there = state.goods.find((other) => other.packing === one.packing);
      if (there) there.out += packs;
      else state.goods.push({ ...one, out: packs, sold: 0, given: 0, second: 0, back: 0, money: 0 });
    }
    // What is poured first is sold first.
    state.goods.sort((a, b) => Date.parse(a.pouredAt) - Date.parse(b.pouredAt) || (a.packing < b.packing ? -1 : 1));
  },
  describe: (one) => ({ what: "went out", figure: one.goods.map((each) => packsWords(each.packs, each.name)).join(", ") }),
  columns: (one) => ({ what: one.goods.map((each) => packsWords(each.packs, each.name)).join(", ") }),
});
