/** What was sold of one thing, in a time. Money in minor units. */
export interface Sold {
  sellable: string;
  name: string;
  sold: number;
  second: number;
  given: number;
  money: number;
  /** What the packs that went had cost; null if that is not known of some. */
  cost: number | null;
  /** Market days it was taken to, and those on which all of it was sold. */
  markets: number;
  soldOut: number;
  /** Taken to markets, and sold there. */
  taken: number;
  soldThere: number;
}

/** Returns what is left of what it brought, and its share; null if the cost is not known, or nothing was brought. */
export const marginOfSold = (item: Pick<Sold, "money" | "cost">): { left: number; share: number } | null =>
  item.cost === null || item.money <= 0 ? null : { left: item.money - item.cost, share: (item.money - item.cost) / item.money };

/** Where a thing sold out, more would have been sold: a quarter more is taken for the wish. Common practice, no source. */
const SOLD_OUT = 1.25;

/**
 * Returns how many packs of a thing one market day is likely to want: what was sold a day, more by a quarter on the days on which it sold out,
 * rounded up; null if it was never taken to one.
 */
export const dayWants = (item: Pick<Sold, "markets" | "soldOut" | "soldThere">): number | null => {
  if (item.markets === 0) return null;
  const lift = (item.markets - item.soldOut + item.soldOut * SOLD_OUT) / item.markets;
  return Math.ceil((item.soldThere / item.markets) * lift - 1e-9);
};

/** Returns what to pour next of a thing: in packs, for orders that are open and for `days` further market days, less what is packed, loose or on the plan already. */
export function toPour(
  item: Pick<Sold, "markets" | "soldOut" | "soldThere">,
  at: { packed: number; loose: number; planned: number; ordered: number; days: number },
): { packs: number; why: string } {
  const day = dayWants(item);
  const wants = at.ordered + (day ?? 0) * at.days;
  const available = at.packed + at.loose + at.planned;
  const packs = Math.max(0, wants - available);
  const said = [
    at.ordered > 0 ? `${at.ordered} ordered` : "",
    day !== null && at.days > 0 ? `${day * at.days} for ${at.days === 1 ? "the next market day" : `${at.days} market days`}` : "",
  ].filter(Boolean);
  return { packs, why: said.length > 0 ? `${said.join(", ")}; ${available} there or planned` : "" };
}
