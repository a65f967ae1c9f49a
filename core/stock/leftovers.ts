/** One product that could be made, and what one piece draws: whole amounts, in milligrams or pieces. */
export interface Choice {
  name: string;
  /** In the order of the supplies. */
  uses: number[];
  /** What one earns, in minor units of money. */
  worth: number;
  least: number;
  /** Null: as many as the materials give. */
  most: number | null;
}

export interface Supply {
  name: string;
  have: number;
  /** Whether using it up is what is wanted; counts in mg only. */
  leftover: boolean;
}

export type Aim = "use" | "earn";

/** max Σ cost·x with Σ uses·x ≤ have, low ≤ x ≤ high, x whole. Rows are supplies, columns choices. */
export interface Programme {
  cost: number[];
  low: number[];
  high: number[];
  have: number[];
  /** By column: the rows it draws on and how much. */
  starts: number[];
  rows: number[];
  amounts: number[];
}

/** Thrown if no product mix meets the request; the message names the number that is in the way. */
export class LeftoversError extends Error {}

/**
 * Returns the integer programme of "which mix of my products uses up these leftovers best, or earns most?".
 * @throws LeftoversError if the least counts already need more than there is, or a product draws on nothing and has no most.
 */
export function leftoversProgramme(choices: readonly Choice[], supplies: readonly Supply[], aim: Aim): Programme {
  supplies.forEach((supply, row) => {
    const needed = choices.reduce((sum, choice) => sum + choice.least * (choice.uses[row] ?? 0), 0);
    if (needed > supply.have)
      throw new LeftoversError(
        `The least counts alone need ${((needed / supply.have) * 100 || Number.POSITIVE_INFINITY).toFixed(0).replace("Infinity", "all and more")} % of the ${supply.name} there is. Lower a least count.`,
      );
  });
  const out: Programme = { cost: [], low: [], high: [], have: supplies.map((supply) => supply.have), starts: [0], rows: [], amounts: [] };
  for (const choice of choices) {
    let high = choice.most ?? Number.POSITIVE_INFINITY;
    let used = 0;
    supplies.forEach((supply, row) => {
      const amount = choice.uses[row] ?? 0;
      if (amount === 0) return;
      high = Math.min(high, Math.floor(supply.have / amount));
      if (supply.leftover) used += amount;
      out.rows.push(row);
      out.amounts.push(amount);
    });
    if (!Number.isFinite(high)) throw new LeftoversError(`${choice.name} draws on none of these materials, so there is no end to it: give it a most.`);
    if (high < choice.least) throw new LeftoversError(`${choice.name}: its least of ${choice.least} is above the ${high} that can be made.`);
    out.starts.push(out.rows.length);
    out.cost.push(aim === "earn" ? choice.worth : used);
    out.low.push(choice.least);
    out.high.push(high);
  }
  return out;
}

export interface Mixture {
  counts: number[];
  /** What is left of each material, exact. */
  left: number[];
  value: number;
  /** No mix can do better than this. */
  bound: number;
  /** Whether no better mix exists; otherwise `bound` says how much better one could be. */
  proved: boolean;
}

/**
 * Reads a solver's answer: rounds the counts, and checks them against the programme in whole numbers, since a solver
 * works within tolerances. @throws LeftoversError if they do not hold.
 */
export function mixtureOf(programme: Programme, values: ArrayLike<number>, bound: number): Mixture {
  const counts = programme.cost.map((_cost, column) => Math.round(values[column] ?? 0));
  const left = [...programme.have];
  let value = 0;
  counts.forEach((count, column) => {
    value += count * (programme.cost[column] as number);
    if (count < (programme.low[column] as number) || count > (programme.high[column] as number))
      throw new LeftoversError("The solver's answer does not hold: a count is out of its bounds.");
    for (let at = programme.starts[column] as number; at < (programme.starts[column + 1] as number); at++) {
      const row = programme.rows[at] as number;
      left[row] = (left[row] as number) - count * (programme.amounts[at] as number);
    }
  });
  if (left.some((value) => value < 0)) throw new LeftoversError("The solver's answer does not hold: it needs more than there is.");
  // Values are whole, so a bound less than one above the value proves it.
  const top = Math.max(value, Math.floor(bound + 1e-6 * Math.max(1, Math.abs(bound) * 1e-3)));
  return { counts, left, value, bound: top, proved: top - value < 1 };
}

/** Returns how many of one thing alone what is there allows; null if it draws on none of it. */
export function mostAlone(uses: readonly number[], have: readonly number[]): { n: number; limitedBy: number } | null {
  let n = Number.POSITIVE_INFINITY;
  let limitedBy = -1;
  uses.forEach((amount, row) => {
    if (amount === 0) return;
    const fits = Math.max(0, Math.floor((have[row] ?? 0) / amount));
    if (fits < n) {
      n = fits;
      limitedBy = row;
    }
  });
  return limitedBy < 0 ? null : { n, limitedBy };
}
