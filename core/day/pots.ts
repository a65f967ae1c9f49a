import type { Process } from "../process/schema";

/** What is to be made, one line: so many of a product, by its formula and the wax that one takes. */
export interface Wanted {
  productId: string;
  name: string;
  count: number;
  /** Wax and oil in one piece. */
  fillMg: number;
  formulaId: string;
  formulaName: string;
  process: Process;
  /** How many things are weighed into the pot. */
  components: number;
  /** Whether its pieces have to be wicked. */
  wicked?: boolean;
}

/** One pot of a day: what of a formula is melted and poured together. */
export interface DayPot {
  key: string;
  formulaId: string;
  formulaName: string;
  process: Process;
  components: number;
  totalMg: number;
  jars: number;
  /** Of them those that have to be wicked. */
  wicked?: number;
  /** What is poured from it: by the line that asked for it, its product and how many. */
  lines: { id: string; productId: string; name: string; count: number }[];
}

/** Spreads jars over so many pots: each to the one that holds least, the heaviest first. How many of each line go into each pot. */
function spreadOver(lines: readonly Wanted[], pots: number): { counts: number[][]; mg: number[] } {
  const counts = Array.from({ length: pots }, () => lines.map(() => 0));
  const mg = counts.map(() => 0);
  const heaviest = lines.map((_, index) => index).sort((a, b) => (lines[b]?.fillMg ?? 0) - (lines[a]?.fillMg ?? 0));
  for (const at of heaviest) {
    const { count, fillMg } = lines[at] as Wanted;
    for (let n = 0; n < count; n++) {
      let least = 0;
      for (let pot = 1; pot < pots; pot++) if ((mg[pot] as number) < (mg[least] as number)) least = pot;
      mg[least] = (mg[least] as number) + fillMg;
      (counts[least] as number[])[at] = (counts[least]?.[at] ?? 0) + 1;
    }
  }
  return { counts, mg };
}

/**
 * Gathers what is wanted into pots: what is of one formula shares a pot, and where a pitcher does not hold it all, it is
 * split into as few as do, jar by jar and about as heavy as one another. Spare in millionths.
 */
export function gatherPots(wanted: readonly Wanted[], pitcherMg: number, sparePpm: number): DayPot[] {
  const byFormula = new Map<string, Wanted[]>();
  for (const item of wanted) if (item.count > 0) byFormula.set(item.formulaId, [...(byFormula.get(item.formulaId) ?? []), item]);
  const room = pitcherMg / (1 + sparePpm / 1_000_000);
  return [...byFormula.values()].flatMap((lines) => {
    const first = lines[0] as Wanted;
    const totalMg = lines.reduce((sum, line) => sum + line.fillMg * line.count, 0);
    const jars = lines.reduce((sum, line) => sum + line.count, 0);
    // A jar cannot be parted, so that what would go by weight may want a pot more; one that is too much alone stands alone.
    let pots = Math.min(jars, Math.max(1, Math.ceil(totalMg / room)));
    let spread = spreadOver(lines, pots);
    while (pots < jars && Math.max(...spread.mg) > room) {
      pots += 1;
      spread = spreadOver(lines, pots);
    }
    return spread.counts.map(
      (counts, index): DayPot => ({
        key: `${first.formulaId}:${index + 1}`,
        formulaId: first.formulaId,
        formulaName: pots > 1 ? `${first.formulaName}, ${index + 1} of ${pots}` : first.formulaName,
        process: first.process,
        components: first.components,
        totalMg: Math.round((spread.mg[index] as number) * (1 + sparePpm / 1_000_000)),
        jars: counts.reduce((sum, count) => sum + count, 0),
        wicked: lines.reduce((sum, line, n) => sum + (line.wicked ? (counts[n] as number) : 0), 0),
        lines: lines.flatMap((line, n) =>
          (counts[n] as number) > 0 ? [{ id: line.productId, productId: line.productId, name: line.name, count: counts[n] as number }] : [],
        ),
      }),
    );
  });
}
