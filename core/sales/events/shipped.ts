import { renameKeys, upcastList } from "../../log/stored";
import { closedOrder, orderEvent, packsWords } from "./event-type";

/** Packs go out: with an order, or to a market. Which packings they are of is said, so that every jar can be found again. */
export const shipped = orderEvent({
  kind: "shipped",
  formerName: "out",
  version: 2,
  payload: ({ z, stamp }) =>
    z.object({
      finishedGoods: z
        .array(
          z.object({
            packRun: z.uuid(),
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
  upcast: ({ goods, ...old }) => ({ finishedGoods: upcastList(goods, renameKeys({ packing: "packRun" })), ...old }),
  validate: (state) => closedOrder(state),
  apply: (state, { payload }) => {
    for (const { packs, ...rest } of payload.finishedGoods) {
      const there = state.finishedGoods.find((other) => other.packRun === rest.packRun);
      if (there) there.out += packs;
      else state.finishedGoods.push({ ...rest, out: packs, sold: 0, given: 0, second: 0, back: 0, money: 0 });
    }
    // What is poured first is sold first.
    state.finishedGoods.sort((a, b) => Date.parse(a.pouredAt) - Date.parse(b.pouredAt) || (a.packRun < b.packRun ? -1 : 1));
  },
  describe: (payload) => ({ what: "went out", figure: payload.finishedGoods.map((each) => packsWords(each.packs, each.name)).join(", ") }),
  columns: (payload) => ({ what: payload.finishedGoods.map((each) => packsWords(each.packs, each.name)).join(", ") }),
});
