import type { Process } from "../process/process";

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
  lines: { name: string; count: number }[];
}

/**
 * Gathers what is wanted into pots: what is of one formula shares a pot, and where a pitcher does not hold it all, it is
 * split into as few as do, each line spread evenly over them. Spare in millionths.
 */
export function gatherPots(wanted: readonly Wanted[], pitcherMg: number, sparePpm: number): DayPot[] {
  const byFormula = new Map<string, Wanted[]>();
  for (const one of wanted) if (one.count > 0) byFormula.set(one.formulaId, [...(byFormula.get(one.formulaId) ?? []), one]);
  return [...byFormula.values()].flatMap((lines) => {
    const first = lines[0] as Wanted;
    const whole = (line: Wanted, count: number) => line.fillMg * count * (1 + sparePpm / 1_000_000);
    const totalMg = lines.reduce((sum, line) => sum + whole(line, line.count), 0);
    const most = lines.reduce((sum, line) => sum + line.count, 0);
    const share = (line: Wanted, at: number, of: number) => Math.floor((line.count * (at + 1)) / of) - Math.floor((line.count * at) / of);
    const heaviest = (of: number) => Math.max(...Array.from({ length: of }, (_, at) => lines.reduce((sum, line) => sum + whole(line, share(line, at, of)), 0)));
    let pots = Math.min(most, Math.max(1, Math.ceil(totalMg / pitcherMg)));
    // A jar cannot be parted, so that an even split may still be too much for one.
    while (pots < most && heaviest(pots) > pitcherMg) pots += 1;
    return Array.from({ length: pots }, (_, at): DayPot => {
      const mine = lines.flatMap((line) => (share(line, at, pots) > 0 ? [{ line, count: share(line, at, pots) }] : []));
      return {
        key: `${first.formulaId}:${at + 1}`,
        formulaId: first.formulaId,
        formulaName: pots > 1 ? `${first.formulaName}, pot ${at + 1} of ${pots}` : first.formulaName,
        process: first.process,
        components: first.components,
        totalMg: Math.round(mine.reduce((sum, one) => sum + whole(one.line, one.count), 0)),
        jars: mine.reduce((sum, one) => sum + one.count, 0),
        lines: mine.map(({ line, count }) => ({ name: line.name, count })),
      };
    });
  });
}
