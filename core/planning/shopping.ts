import type { PlannedPot } from "./planning";

/** What one piece of a product takes from the shelf, by material: milligrams, or pieces of what is counted; of packing its share of a pack. */
export type DrawOf = ReadonlyMap<string, ReadonlyMap<string, number>>;

export interface Store {
  id: string;
  name: string;
  kind: string;
  counted: boolean;
  /** What is there; null if it is not tracked. */
  onHand: number | null;
  /** What batches that are on have still to take. */
  promised: number;
  /** How it was bought last: so much, for so much in minor units. */
  pack: { amount: number; cost: number | null } | null;
}

/** One line of what is to be bought. */
export interface ToBuy extends Store {
  /** What the plan takes altogether. */
  needed: number;
  /** What is missing. */
  short: number;
  /** The first day on which it does not reach; null if that pot has no day. */
  by: string | null;
  /** How many packs, and what they cost; null if it is not known how it is bought. */
  packs: number | null;
  cost: number | null;
}

/**
 * Returns what pots take less what is there and not promised yet, and by when: pots draw in the order of their days, and what runs short first
 * says the day. Spare in millionths goes on what is weighed. What is not tracked is to be bought whole.
 */
export function shoppingOf(pots: readonly Pick<PlannedPot, "day" | "lines">[], draws: DrawOf, supplies: readonly Store[]): ToBuy[] {
  const needed = new Map<string, number>();
  const short = new Map<string, string | null>();
  const free = new Map(supplies.map((supply) => [supply.id, (supply.onHand ?? 0) - supply.promised]));
  const inOrder = [...pots].sort((a, b) => (a.day ?? "9999").localeCompare(b.day ?? "9999"));
  for (const pot of inOrder)
    for (const line of pot.lines)
      for (const [material, each] of draws.get(line.productId) ?? []) {
        const sum = (needed.get(material) ?? 0) + each * line.count;
        needed.set(material, sum);
        if (sum > (free.get(material) ?? 0) && !short.has(material)) short.set(material, pot.day);
      }
  return supplies
    .flatMap((supply): ToBuy[] => {
      // A piece can take a sixth of a box; what is bought is whole.
      const whole = (amount: number) => (supply.counted ? Math.ceil(amount - 1e-9) : amount);
      const wants = whole(needed.get(supply.id) ?? 0);
      const missing = whole(wants - Math.max(0, free.get(supply.id) ?? 0));
      if (wants === 0 || missing <= 0) return [];
      const packs = supply.pack ? Math.ceil(missing / supply.pack.amount) : null;
      return [
        {
          ...supply,
          needed: wants,
          short: missing,
          by: short.get(supply.id) ?? null,
          packs,
          cost: packs !== null && supply.pack?.cost != null ? packs * supply.pack.cost : null,
        },
      ];
    })
    .sort((a, b) => (a.by ?? "9999").localeCompare(b.by ?? "9999") || a.name.localeCompare(b.name));
}
