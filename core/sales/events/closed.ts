import { stillOut } from "../state";
import { closedOrder, orderEvent } from "./event-type";

/** An order was closed: all packs that went out are sold, given away or back. */
export const closed = orderEvent({
  kind: "closed",
  version: 1,
  payload: ({ z }) => z.object({}),
  validate: (state) => {
    const available = state.finishedGoods.reduce((sum, packsOut) => sum + stillOut(packsOut), 0);
    return (
      closedOrder(state) ??
      (available > 0
        ? { field: "kind", message: `${available} ${available === 1 ? "pack is" : "packs are"} still out. Count them as sold, given away or back first.` }
        : null)
    );
  },
  apply: (state, { id, happenedAt }) => {
    state.closed = { at: happenedAt, id };
  },
  describe: () => ({ what: "closed" }),
  columns: () => ({ what: "closed" }),
});
