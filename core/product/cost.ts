import { costOf, type Ledger, wouldTake } from "../stock/ledger";
import type { EmbedChoice } from "./embeds";

/** What one piece costs, by what it goes to. Minor units of money, unrounded. */
export interface CostLine {
  what: "wax, oil and what is in the pot" | "vessel" | "wicks" | "embeds" | "pack" | "hands" | "heat" | "tools";
  cost: number;
}

/** What an hour of hands, and an hour of heat, cost in minor units; null if a workshop does not count it. */
export interface Rates {
  handsCost: number | null;
  heatCost: number | null;
  /** What the tools cost for each candle: their prices by how many candles they last for. */
  toolCost?: number;
}

/** A product as far as its cost depends on it. */
export interface Costed {
  containerId: string;
  wickId: string | null;
  embeds?: readonly EmbedChoice[] | null;
  /** Pieces in a pack, and what the packing of one pack costs. */
  pack: number;
  packCost: number | null;
  /** Per piece. */
  handsSeconds: number | null;
  heatSeconds: number | null;
}

/** Returns what one piece costs beside what it is made of: its share of the pack, and hands and heat where they are counted. */
export function overheadCosts(product: Pick<Costed, "pack" | "packCost" | "handsSeconds" | "heatSeconds">, rates: Rates): CostLine[] {
  const perHour = (seconds: number | null, rate: number | null) => (seconds === null || rate === null ? 0 : (seconds * rate) / 3_600);
  return [
    { what: "pack", cost: (product.packCost ?? 0) / product.pack },
    { what: "hands", cost: perHour(product.handsSeconds, rates.handsCost) },
    { what: "heat", cost: perHour(product.heatSeconds, rates.heatCost) },
    { what: "tools", cost: rates.toolCost ?? 0 },
  ];
}

/**
 * Returns what one piece of a product costs from the oldest lots of what it draws, with its share of the pack, of hands and of heat
 * where they are counted. `unpriced` names what no lot with a cost covers.
 */
export function costOfProduct(
  product: Costed,
  draw: ReadonlyMap<string, number>,
  left: (id: string) => Ledger["left"],
  rates: Rates,
): { lines: CostLine[]; cost: number; unpriced: string[] } {
  const sums = { pot: 0, container: 0, wicks: 0, embeds: 0 };
  const goesTo = (id: string): keyof typeof sums =>
    id === product.containerId ? "container" : id === product.wickId ? "wicks" : product.embeds?.some((embed) => embed.id === id) ? "embeds" : "pot";
  const unpriced: string[] = [];
  for (const [id, amount] of draw) {
    const { cost, unknown } = costOf(wouldTake(left(id), amount));
    if (unknown > 0) unpriced.push(id);
    sums[goesTo(id)] += cost;
  }
  const lines: CostLine[] = [
    { what: "wax, oil and what is in the pot", cost: sums.pot },
    { what: "vessel", cost: sums.container },
    { what: "wicks", cost: sums.wicks },
    { what: "embeds", cost: sums.embeds },
    ...overheadCosts(product, rates),
  ];
  return { lines: lines.filter((line) => line.cost > 0), cost: lines.reduce((sum, line) => sum + line.cost, 0), unpriced };
}

/** Returns what is left of the price of one pack after what its pieces cost, and its share of the price; null if there is no price. */
export function marginOf(price: number | null, pack: number, pieceCost: number): { left: number; share: number } | null {
  if (price === null || price <= 0) return null;
  const left = price - pieceCost * pack;
  return { left, share: left / price };
}
