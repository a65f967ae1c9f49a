import type { EventOf, LogState } from "../log/log";
import type { OrderLine, OrderPlan } from "./plan";

/** What became of packs of one packing that went out. */
export interface PacksOut {
  packRun: string;
  sellable: string;
  name: string;
  /** Of one pack, in minor units, as it was when they went out. */
  price: number | null;
  /** The day on which the oldest of it was poured: what is sold first. */
  pouredAt: string;
  out: number;
  sold: number;
  given: number;
  second: number;
  back: number;
  /** What was taken for those sold, in minor units. */
  money: number;
}
/** What can become of packs that are out. */
export const WENT = ["sold", "given", "second", "back"] as const;
export type Went = (typeof WENT)[number];
export const WENT_WORDS: Record<Went, string> = { sold: "sold", given: "given away", second: "sold as seconds", back: "came back" };

/** What follows from the entries of an order or a market day. */
export interface OrderState extends LogState {
  name: string;
  whom: string;
  /** ISO day. */
  wantedOn: string | null;
  lines: OrderLine[];
  finishedGoods: PacksOut[];
  /** Packs that were counted as gone though so many were never taken out. */
  unplaced: Record<string, number>;
  /** The last moment at which something was sold of each: when it sold out, where all of it did. */
  soldAt: Record<string, string>;
  closed: { at: string; id: string } | null;
}

export const ORDER_STATE_VERSION = 2;

export const initialOrderState = (plan: OrderPlan, start: EventOf): OrderState => ({
  format: ORDER_STATE_VERSION,
  effectiveEvents: 1,
  startedAt: start.happenedAt,
  lastAt: start.happenedAt,
  drawn: {},
  name: plan.name,
  whom: plan.whom,
  wantedOn: plan.wantedOn,
  lines: plan.lines.map((line) => ({ ...line })),
  finishedGoods: [],
  unplaced: {},
  soldAt: {},
  closed: null,
});

/** Returns packs of a packing that are still out: not sold, given, and not back. */
export const stillOut = (item: Pick<PacksOut, "out" | "sold" | "given" | "second" | "back">): number =>
  item.out - item.sold - item.given - item.second - item.back;

/** Returns packs of something that are still out. */
export const outOf = (state: Pick<OrderState, "finishedGoods">, sellable: string): number =>
  state.finishedGoods.reduce((sum, packsOut) => (packsOut.sellable === sellable ? sum + stillOut(packsOut) : sum), 0);

/** What is asked of a thing, what went out of it, and what became of that. */
export interface LineNow extends Omit<PacksOut, "packRun" | "pouredAt"> {
  asked: number;
  /** Still out. */
  there: number;
  /** Asked for and neither out nor sold yet. */
  shortage: number;
}

/** Returns all that an order or a market day is about, thing by thing: what is asked first, then what went out beside it. What came back from a market is not short again. */
export function linesNow(state: OrderState, what: OrderPlan["what"] = "order"): LineNow[] {
  const ids = [...new Set([...state.lines.map((line) => line.sellable), ...state.finishedGoods.map((stocked) => stocked.sellable)])];
  return ids.map((id) => {
    const line = state.lines.find((line) => line.sellable === id);
    const finishedGoods = state.finishedGoods.filter((stocked) => stocked.sellable === id);
    const sum = (of: (packsOut: PacksOut) => number) => finishedGoods.reduce((all, packsOut) => all + of(packsOut), 0);
    const asked = line?.packs ?? 0;
    const out = sum((packsOut) => (what === "market" ? packsOut.out : packsOut.out - packsOut.back));
    return {
      sellable: id,
      name: line?.name ?? finishedGoods[0]?.name ?? "",
      price: line?.price ?? finishedGoods.at(-1)?.price ?? null,
      asked,
      out: sum((packsOut) => packsOut.out),
      sold: sum((packsOut) => packsOut.sold),
      given: sum((packsOut) => packsOut.given),
      second: sum((packsOut) => packsOut.second),
      back: sum((packsOut) => packsOut.back),
      money: sum((packsOut) => packsOut.money),
      there: sum(stillOut),
      shortage: Math.max(0, asked - out),
    };
  });
}
