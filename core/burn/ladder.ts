import { parseNumber, writeNumber } from "../units/number";
import { bad, good, type Parsed } from "../units/parsed";
import type { Ladder } from "./varied";

/** The bounds of a ladder's steps, in percent, or in drops for a dye. Common practice, no source. */
const BOUNDS: Record<Ladder, { least: number; most: number; unit: string }> = {
  load: { least: 0, most: 30, unit: "%" },
  blend: { least: 0, most: 100, unit: "%" },
  additive: { least: 0, most: 50, unit: "%" },
  dye: { least: 0, most: 100, unit: "drops per lb" },
};
/** Loads are told apart from two points on; a blend goes by ten. Common practice, no source. */
export const LADDER_STEP: Record<Ladder, number> = { load: 2, blend: 10, additive: 0.5, dye: 2 };
const MAX_STEPS = 8;

/** Reads the steps of a ladder as they are typed, "8, 10, 12": percent, or drops for a dye; in ascending order. */
export function parseLadder(text: string, ladder: Ladder): Parsed<number[]> {
  const { least, most, unit } = BOUNDS[ladder];
  const steps: number[] = [];
  for (const piece of text.split(/[;/]|,\s+|\s+/).filter((part) => part.trim() !== "" && part.trim() !== "%")) {
    const read = parseNumber(piece.replace(/[%,]+$/, ""));
    if (!read.ok) return read;
    if (read.value < least || read.value > most) return bad("out-of-range", `“${piece}” lies outside of ${least} to ${most} ${unit}.`);
    if (ladder === "dye" && !Number.isInteger(read.value)) return bad("not-understood", "Drops are whole numbers.");
    if (steps.includes(read.value)) return bad("twice", `“${piece}” stands there twice.`);
    steps.push(read.value);
  }
  if (steps.length < 2) return bad("too-small", "Enter at least two steps, like 8, 10, 12.");
  if (steps.length > MAX_STEPS) return bad("too-large", `At most ${MAX_STEPS} steps in one trial.`);
  return good(steps.sort((a, b) => a - b));
}

export const writeLadder = (steps: readonly number[]): string => steps.map((step) => writeNumber(step, 3)).join(", ");

/** Returns the steps that a ladder begins with: loads by two points about what it has, from 4 % for essential oils; never above the wax's limit. */
export function firstLadder(ladder: Ladder, of: { loadPercent: number; maxLoadPercent: number | null; isEssential: boolean }): number[] {
  if (ladder === "blend") return [10, 20, 30];
  if (ladder === "additive") return [0.5, 1, 1.5];
  if (ladder === "dye") return [2, 4, 6];
  const most = of.maxLoadPercent ?? 12;
  const step = LADDER_STEP.load;
  const from = of.isEssential ? Math.min(4, most) : Math.max(0, Math.min(of.loadPercent, most) - step);
  const steps = [from, from + step, from + 2 * step].filter((percent) => percent <= most);
  return steps.length > 1 ? steps : [Math.max(0, most - step), most];
}
