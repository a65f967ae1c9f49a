import type { LineNow, OrderPlan, OrderState, Sellable } from "@hearth/core";

/** What a page knows of the stock and the plan when it is opened. */
export interface Supplies {
  sellables: readonly Sellable[];
  /** Packs of each thing that are packed, and that loose pieces are enough for. */
  there: Readonly<Record<string, { packed: number; loose: number }>>;
  /** Pieces of each product that are on the plan for this order. */
  planned: Readonly<Record<string, number>>;
  /** The order as it stood when the stock was read. */
  read: OrderState;
}

/** What an order asks of its maker now. `next` is the one step to take: take packs out, count what became of them, or close. */
export interface OrderShown {
  /** Packs of each thing in stock now. */
  stock: Readonly<Record<string, number>>;
  going: { line: LineNow; packs: number }[];
  shortage: LineShort[];
  /** Packs that are out now. */
  out: number;
  /** What was taken, in the workshop's smallest coin. */
  money: number;
  isClosed: boolean;
  next: "take" | "count" | "close" | null;
}
export interface LineShort {
  line: LineNow;
  stock: number;
  short: number;
  /** Packs that what is on the plan is enough for. */
  planned: number;
}

const contentsOf = (sellables: readonly Sellable[], id: string) => sellables.find((sellable) => sellable.id === id)?.contents ?? [];
const outNet = (state: OrderState, id: string) =>
  state.finishedGoods.reduce((sum, packsOut) => (packsOut.sellable === id ? sum + packsOut.out - packsOut.back : sum), 0);

/**
 * Works out what an order asks of its maker. What went out or came back since the stock was read is not in stock, or in stock again: the stock is not read
 * anew, since at a stall the network may be gone. A market day that is over lacks nothing. `today` is a day of the workshop.
 */
export function orderState(plan: OrderPlan, state: OrderState, lines: readonly LineNow[], supplies: Supplies, today: string): OrderShown {
  const { sellables, there, read } = supplies;
  const stockOf = (id: string) => Math.max(0, (there[id]?.packed ?? 0) + (there[id]?.loose ?? 0) + outNet(read, id) - outNet(state, id));
  const plannedOf = (id: string) => {
    const contents = contentsOf(sellables, id);
    return contents.length === 0 ? 0 : Math.min(...contents.map((part) => Math.floor((supplies.planned[part.productId] ?? 0) / part.count)));
  };
  const going = lines.flatMap((line) => {
    const packs = Math.min(line.shortage, stockOf(line.sellable));
    return packs > 0 ? [{ line, packs }] : [];
  });
  const isOver = plan.what === "market" && state.wantedOn !== null && state.wantedOn < today;
  const shortage = lines.flatMap((line) => {
    const stock = stockOf(line.sellable);
    return isOver || line.shortage <= stock ? [] : [{ line, stock, short: line.shortage - stock, planned: plannedOf(line.sellable) }];
  });
  const out = lines.reduce((sum, line) => sum + line.there, 0);
  const isClosed = state.closed !== null;
  const next = isClosed ? null : going.length > 0 ? "take" : out > 0 ? "count" : lines.some((line) => line.out > 0) ? "close" : null;
  return {
    stock: Object.fromEntries([...new Set([...Object.keys(there), ...lines.map((line) => line.sellable)])].map((id) => [id, stockOf(id)])),
    going,
    shortage,
    out,
    money: lines.reduce((sum, line) => sum + line.money, 0),
    isClosed,
    next,
  };
}

/** Returns, for each product, how many pieces the order is short of over all its lines that contain the product: one demand line each. */
export const piecesShort = (sellables: readonly Sellable[], shortage: readonly LineShort[], sellable: string): { productId: string; count: number }[] =>
  contentsOf(sellables, sellable).map(({ productId }) => ({
    productId,
    count: shortage.reduce(
      (sum, line) => sum + line.short * (contentsOf(sellables, line.line.sellable).find((part) => part.productId === productId)?.count ?? 0),
      0,
    ),
  }));
