import { z } from "zod";
import { lengthInBoth } from "../units/measured-text";

/** Paper that labels are printed on, in mm: ISO 216 A4; US Letter, 8.5 × 11 in. */
export const PAPERS = { a4: { width: 210, height: 297 }, letter: { width: 215.9, height: 279.4 } } as const;
export type PaperName = keyof typeof PAPERS;

const um = (least: number, most: number, what: string) =>
  z
    .number()
    .int()
    .min(least * 1_000, `${what} must be at least ${lengthInBoth(least * 1_000)}.`)
    .max(most * 1_000, `${what} cannot be above ${lengthInBoth(most * 1_000)}.`);

/** A sheet of labels as the workshop measured it. Micrometers. */
export const labelSheet = z
  .object({
    paper: z.enum(["a4", "letter"]),
    round: z.boolean(),
    rows: z.number().int().min(1, "At least one row.").max(40),
    columns: z.number().int().min(1, "At least one column.").max(20),
    width: um(8, 210, "A label's width"),
    height: um(8, 297, "A label's height"),
    /** From the paper's edge to the first label. */
    left: um(0, 200, "The margin on the left"),
    top: um(0, 280, "The margin at the top"),
    /** Between two labels. */
    gapAcross: um(0, 100, "The gap across"),
    gapDown: um(0, 100, "The gap down"),
  })
  .superRefine((item, context) => {
    const paper = PAPERS[item.paper];
    const right = item.left + item.columns * item.width + (item.columns - 1) * item.gapAcross;
    const bottom = item.top + item.rows * item.height + (item.rows - 1) * item.gapDown;
    const over = (value: number, most: number) => Math.round((value / 1_000 - most) * 10) / 10;
    if (over(right, paper.width) > 0)
      context.addIssue({
        code: "custom",
        path: ["columns"],
        message: `These columns are ${lengthInBoth(over(right, paper.width) * 1_000)} too wide for the paper. Measure again.`,
      });
    if (over(bottom, paper.height) > 0)
      context.addIssue({
        code: "custom",
        path: ["rows"],
        message: `These rows are ${lengthInBoth(over(bottom, paper.height) * 1_000)} too long for the paper. Measure again.`,
      });
    if (item.round && item.width !== item.height) context.addIssue({ code: "custom", path: ["height"], message: "A round label is as high as it is wide." });
  });
export type LabelSheet = z.output<typeof labelSheet>;

/** Sheets to begin with, of no maker: a plain grid, round labels for tealights, and one label to a page quarter. */
export const PRESET_SHEETS: readonly { id: string; name: string; sheet: LabelSheet }[] = [
  {
    id: "a4-3x8",
    name: "A4, 3 × 8",
    sheet: { paper: "a4", round: false, rows: 8, columns: 3, width: 64_000, height: 33_900, left: 7_000, top: 12_900, gapAcross: 2_000, gapDown: 0 },
  },
  {
    id: "a4-round-32",
    name: "A4, round, 5 × 8",
    sheet: { paper: "a4", round: true, rows: 8, columns: 5, width: 32_000, height: 32_000, left: 15_000, top: 12_500, gapAcross: 5_000, gapDown: 2_000 },
  },
  {
    id: "a4-2x4",
    name: "A4, 2 × 4",
    sheet: { paper: "a4", round: false, rows: 4, columns: 2, width: 99_000, height: 67_700, left: 4_500, top: 13_100, gapAcross: 3_000, gapDown: 0 },
  },
  {
    id: "letter-3x10",
    name: "Letter, 3 × 10",
    sheet: { paper: "letter", round: false, rows: 10, columns: 3, width: 66_600, height: 25_400, left: 4_800, top: 12_700, gapAcross: 3_200, gapDown: 0 },
  },
  {
    id: "letter-round-38",
    name: "Letter, round, 4 × 6",
    sheet: { paper: "letter", round: true, rows: 6, columns: 4, width: 38_100, height: 38_100, left: 18_000, top: 14_000, gapAcross: 9_000, gapDown: 4_000 },
  },
  {
    id: "letter-2x5",
    name: "Letter, 2 × 5",
    sheet: { paper: "letter", round: false, rows: 5, columns: 2, width: 101_600, height: 50_800, left: 4_000, top: 12_700, gapAcross: 4_700, gapDown: 0 },
  },
];

export const perSheet = (sheet: Pick<LabelSheet, "rows" | "columns">): number => sheet.rows * sheet.columns;

/** Returns where the n-th label lies, counted across and then down from 0: its page, and its top left corner in micrometers. */
export function placeOf(sheet: LabelSheet, n: number): { page: number; x: number; y: number } {
  const on = n % perSheet(sheet);
  return {
    page: Math.floor(n / perSheet(sheet)),
    x: sheet.left + (on % sheet.columns) * (sheet.width + sheet.gapAcross),
    y: sheet.top + Math.floor(on / sheet.columns) * (sheet.height + sheet.gapDown),
  };
}

/** Returns the side of the square by which a printer is checked, in micrometers: an inch on Letter paper, 20 mm on A4. */
export const testSquareUm = (sheet: Pick<LabelSheet, "paper">): number => (sheet.paper === "letter" ? 25_400 : 20_000);

/** Returns where the test square goes: the middle of the largest margin of the paper that holds it; null if none does, and it goes onto a page of its own. */
export function testSquareAt(sheet: LabelSheet): { x: number; y: number } | null {
  const paper = { width: PAPERS[sheet.paper].width * 1_000, height: PAPERS[sheet.paper].height * 1_000 };
  const bottom = sheet.top + sheet.rows * sheet.height + (sheet.rows - 1) * sheet.gapDown;
  const right = sheet.left + sheet.columns * sheet.width + (sheet.columns - 1) * sheet.gapAcross;
  // Printers leave some 5 mm of the paper white.
  const side = testSquareUm(sheet) + 8_000;
  if (paper.height - bottom >= side) return { x: 10_000, y: paper.height - 5_000 - testSquareUm(sheet) };
  if (sheet.top >= side) return { x: 10_000, y: 5_000 };
  if (paper.width - right >= side) return { x: paper.width - 5_000 - testSquareUm(sheet), y: 10_000 };
  return null;
}
