import { stillOut } from "../facts";
import { closedOrder, orderKind } from "./kind";

/** Nothing of it is open any more: what went out is sold, given away or back. */
export const closed = orderKind({
  kind: "closed",
  version: 1,
  payload: ({ z }) => z.object({}),
  refuse: (facts) => {
    const there = facts.goods.reduce((sum, one) => sum + stillOut(one), 0);
    return (
      closedOrder(facts) ??
      (there > 0
        ? { field: "kind", message: `${there} ${there === 1 ? "pack is" : "packs are"} still out. Count them as sold, given away or back first.` }
        : null)
    );
  },
  apply: (facts, { id, happenedAt }) => {
    facts.closed = { at: happenedAt, id };
  },
  told: () => ({ what: "closed" }),
  columns: () => ({ what: "closed" }),
});
