/**
 * Stock of one material by received lots, first received first out. Amounts are whole numbers: milligrams, or pieces of
 * what is counted. What was drawn is found by its place in the row of everything received, so the order in which lots
 * and batches are written down does not matter; a count sets the place anew.
 */
export interface Lot {
  id: string;
  /** ISO date or time. */
  receivedAt: string;
  amount: number;
  /** What the whole lot cost, in minor units; null if nobody wrote it down. */
  cost: number | null;
}
export interface Draw {
  id: string;
  at: string;
  amount: number;
}
export interface Count {
  at: string;
  /** What was found to be there. */
  amount: number;
}

/** What one draw took of one lot; `lotId` null if no lot covers it. */
export interface Taken {
  lotId: string | null;
  amount: number;
  /** Minor units, unrounded where a lot's cost does not divide; null if it is not known. */
  cost: number | null;
}

export interface Ledger {
  /** Below zero where more was drawn than was ever received: count what is there. */
  onHand: number;
  /** What is left of each lot, oldest first; used up ones are left out. */
  left: { lotId: string | null; amount: number; cost: number | null }[];
  taken: Map<string, Taken[]>;
}

const time = (at: string) => Date.parse(at);

/** Returns the stock ledger of a material: what each draw took from which lot. Draws at the very moment of a count come before it. */
export function ledger(lots: readonly Lot[], draws: readonly Draw[], counts: readonly Count[]): Ledger {
  const row = [...lots].sort((a, b) => time(a.receivedAt) - time(b.receivedAt) || (a.id < b.id ? -1 : 1));
  const starts: number[] = [];
  let received = 0;
  for (const lot of row) {
    starts.push(received);
    received += lot.amount;
  }
  const receivedBy = (at: number) => row.reduce((sum, lot) => sum + (time(lot.receivedAt) <= at ? lot.amount : 0), 0);
  /** Returns the parts of lots that lie between two places of the row. */
  const between = (from: number, to: number): Taken[] => {
    const out: Taken[] = [];
    let covered = 0;
    row.forEach((lot, index) => {
      const start = starts[index] as number;
      const low = Math.max(from, start);
      const high = Math.min(to, start + lot.amount);
      if (high <= low) return;
      covered += high - low;
      out.push({ lotId: lot.id, amount: high - low, cost: lot.cost === null ? null : (lot.cost * (high - low)) / lot.amount });
    });
    if (to - from - covered > 0) out.push({ lotId: null, amount: to - from - covered, cost: null });
    return out;
  };
  const happenings = [
    ...draws.map((draw) => ({ at: time(draw.at), order: 0, id: draw.id, draw, count: null })),
    ...counts.map((count) => ({ at: time(count.at), order: 1, id: "", draw: null, count })),
  ].sort((a, b) => a.at - b.at || a.order - b.order || (a.id < b.id ? -1 : 1));
  const taken = new Map<string, Taken[]>();
  let position = 0;
  for (const happening of happenings) {
    if (happening.count) position = receivedBy(happening.at) - happening.count.amount;
    else if (happening.draw) {
      taken.set(happening.draw.id, between(position, position + happening.draw.amount));
      position += happening.draw.amount;
    }
  }
  return { onHand: received - position, left: received > position ? between(position, received) : [], taken };
}

/** Returns what draws one after another would take from what is left, the oldest lot first; what is not there comes last, without a cost. */
export function drawing(left: Ledger["left"]): (amount: number) => Taken[] {
  const rest = left.map((lot) => ({ ...lot }));
  return (amount) => {
    const out: Taken[] = [];
    let needed = amount;
    for (const lot of rest) {
      const part = Math.min(needed, lot.amount);
      if (part <= 0) continue;
      const cost = lot.cost === null ? null : (lot.cost * part) / lot.amount;
      out.push({ lotId: lot.lotId, amount: part, cost });
      lot.amount -= part;
      if (lot.cost !== null) lot.cost -= cost ?? 0;
      needed -= part;
    }
    if (needed > 0) out.push({ lotId: null, amount: needed, cost: null });
    return out;
  };
}

/** Returns what drawing one amount would take from what is left, and cost. */
export const wouldTake = (left: Ledger["left"], amount: number): Taken[] => drawing(left)(amount);

/** The cost of what was taken, and how much of it has no known cost. */
export function costOf(taken: readonly Taken[]): { cost: number; unknown: number } {
  let cost = 0;
  let unknown = 0;
  for (const item of taken) {
    if (item.cost === null) unknown += item.amount;
    else cost += item.cost;
  }
  return { cost, unknown };
}

export interface PieceCost {
  key: string;
  /** Minor units, unrounded: its share of the pots, its container and its wicks. */
  cost: number;
}

/**
 * Returns the cost of one piece of each product: its share of each pot that filled it, by what that pot poured into it, spare included, and its own
 * parts. A pot that poured into none is shared by all that was poured.
 * @param potCosts of each pot; @param products with what each pot pours into one piece
 */
export function costPerPiece(
  potCosts: readonly number[],
  products: readonly { key: string; fillsMg: readonly number[]; count: number; pieceCost: number }[],
): PieceCost[] {
  const all = (item: { fillsMg: readonly number[] }) => item.fillsMg.reduce((sum, mg) => sum + mg, 0);
  const sumOf = (of: (item: (typeof products)[number]) => number) => products.reduce((sum, item) => sum + of(item) * item.count, 0);
  const poured = potCosts.map((_, pot) => sumOf((item) => item.fillsMg[pot] ?? 0));
  const whole = sumOf(all);
  return products.map((product) => ({
    key: product.key,
    cost: potCosts.reduce((sum, cost, pot) => {
      const [mine, of] = (poured[pot] as number) > 0 ? [product.fillsMg[pot] ?? 0, poured[pot] as number] : [all(product), whole];
      return of > 0 ? sum + (cost * mine) / of : sum;
    }, product.pieceCost),
  }));
}
