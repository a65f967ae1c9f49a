import {
  type BatchPlan,
  countWords,
  inManner,
  isLocale,
  MANNERS,
  portionsFor,
  type Step,
  stepsOf,
  titleOf,
  typedUnit,
  writeBulk,
  writeDay,
  writeDuration,
  writeMass,
  writeOnScale,
  writePart,
  writePercent,
  writeRange,
} from "@hearth/core";
import { MARGIN, MM, Paper, type PaperSize } from "./paper";

/** What a sheet is made for. */
export interface SheetOf {
  /** "Batch 63", "Pot 2". */
  name: string;
  /** ISO day. */
  day: string;
  plan: BatchPlan;
  /** What its code opens. */
  address: string;
  opens: string;
}
export interface PaperUnits {
  massUnit: "g" | "oz";
  locale: string;
}

/** Of scales that take little: what they take, by their id. */
export type Capacities = ReadonlyMap<string, number>;

const ROW = 20;
const BLANK = 78;

/** Sheets of batches, one after another: what to weigh, into which pitcher, the ranges, and blanks for what is read. */
export async function batchSheets(sheets: readonly SheetOf[], size: PaperSize, units: PaperUnits, capacities: Capacities): Promise<Buffer> {
  const paper = new Paper(size, sheets.length === 1 ? `${sheets[0]?.name ?? ""} ${titleOf((sheets[0] as SheetOf).plan)}` : "Batch sheets");
  for (const one of sheets) batchSheet(paper, one, units, capacities);
  return paper.end();
}

function batchSheet(paper: Paper, { name, day, plan, address, opens }: SheetOf, units: PaperUnits, capacities: Capacities): void {
  const manner = MANNERS[isLocale(units.locale) ? units.locale : "en-GB"];
  const say = (text: string) => inManner(text, manner);
  const right = paper.width - MARGIN;
  const inner = right - MARGIN;
  const bottom = paper.height - MARGIN - 14;
  const title = titleOf(plan);
  let y = 0;
  let pages = 0;
  const head = () => {
    paper.page();
    pages += 1;
    y = MARGIN;
    paper.text(`${name}, ${title}, ${writeDay(day, manner.date)}, page ${pages}`, MARGIN, paper.height - MARGIN - 4, { size: 8, grey: true });
  };
  /** Makes room for so much, on a new page where it has to be. */
  const room = (height: number) => {
    if (y + height <= bottom) return;
    head();
    y = paper.text(`${name} (continued)`, MARGIN, y, { size: 11, bold: true }) + 6;
  };
  const section = (text: string) => {
    room(50);
    y = paper.text(text, MARGIN, y + 8, { size: 12, bold: true });
    paper.line(MARGIN, y + 1, right, y + 1, 1.4);
    y += 7;
  };
  head();
  const code = 34 * MM;
  paper.code(address, right - code, MARGIN - 8, code);
  paper.text(opens, right - code, MARGIN - 8 + code, { size: 8, grey: true, width: code });
  y = paper.text(name, MARGIN, y, { size: 26, bold: true, width: inner - code - 12 });
  y = paper.text(title, MARGIN, y, { size: 15, bold: true, width: inner - code - 12, most: 2 });
  y = paper.text(`${writeDay(day, manner.day)} ${day.slice(0, 4)}`, MARGIN, y + 2, { size: 11 });
  for (const one of plan.products)
    y = paper.text(
      `${one.count} × ${one.name}${one.part ? `, ${writePart(one.part)}` : ""}, ${say(writeMass(one.fillMg, units.massUnit))} each${one.wicks ? `, ${one.wicks.count} × ${one.wicks.name}` : ""}`,
      MARGIN,
      y + 1,
      {
        size: 11,
        width: inner - code - 12,
      },
    );
  paper.text("Made by", MARGIN, y + 10, { size: 9, grey: true });
  paper.line(MARGIN + 44, y + 20, MARGIN + 200, y + 20);
  y = Math.max(y + 26, MARGIN + code + 12);

  for (const [potAt, pot] of plan.pots.entries()) {
    section(plan.pots.length > 1 ? `Weigh, pot ${potAt + 1}: ${pot.formulaName}` : "Weigh");
    const pitchers = pot.pitchers && pot.pitchers.length > 1 ? pot.pitchers : null;
    for (const part of pot.components) {
      const amount = part.count ? countWords(part.count.n, part.count.of) : say(writeOnScale(part.mg, part.scale));
      const each = pitchers?.map((pitcher) => {
        const mine = pitcher.components.find((other) => other.id === part.id);
        return mine?.n !== undefined ? countWords(mine.n, part.count?.of ?? "drops") : say(writeOnScale(mine?.mg ?? 0, part.scale));
      });
      const capacity = capacities.get(part.scale.id ?? "");
      const parts = !part.count && capacity !== undefined && part.mg > capacity ? portionsOf(part.mg, capacity, part.scale.resolutionUg) : null;
      const inOther = !part.count && typedUnit(part.scale) !== units.massUnit;
      const below = [
        ...(inOther ? [`= ${say(writeMass(part.mg, units.massUnit))}`] : []),
        ...(each ? [`by pitcher: ${each.join(" + ")}`] : []),
        ...(parts ? [`in ${parts.length} parts on this scale: ${parts.map((mg) => say(writeOnScale(mg, part.scale))).join(" + ")}`] : []),
      ];
      room(ROW + below.length * 12);
      paper.tick(MARGIN, y + 2);
      paper.text(part.name, MARGIN + 18, y + 1, { size: 11, bold: true, width: inner - 330, most: 1 });
      paper.text(amount, right - 306, y - 2, { size: 15, bold: true, width: 110, align: "right" });
      paper.text(part.count ? "" : part.scale.name, right - 188, y + 2, { size: 9, grey: true, width: 84, most: 1 });
      paper.text("weighed", right - 100, y + 3, { size: 8, grey: true });
      paper.line(right - 62, y + 13, right, y + 13);
      y += ROW;
      for (const text of below) y = paper.text(text, MARGIN + 18, y - 4, { size: 9, width: inner - 20 }) + 3;
    }
    y = paper.text(
      `Together ${say(writeBulk(pot.totalMg, units.massUnit))}${pot.sparePpm > 0 ? `, with ${say(writePercent(pot.sparePpm, 1))} spare` : ""}${pitchers ? `, in ${pitchers.length} pitchers` : ""}`,
      MARGIN + 18,
      y,
      { size: 9, grey: true },
    );
  }

  section("Do, and read");
  for (const step of stepsOf(plan).filter((one) => one.entry !== "weighed" && one.entry !== "counted")) {
    const range = step.range ? `${say(writeRange(step.range, "C"))}  =  ${say(writeRange(step.range, "F"))}` : timeOf(step);
    room(ROW + 4);
    paper.tick(MARGIN, y + 2);
    paper.text(plan.pots.length > 1 ? `${step.name}, pot ${step.pot + 1}` : step.name, MARGIN + 18, y + 1, { size: 11, bold: true, width: 150, most: 1 });
    paper.text(range, MARGIN + 172, y + 1, { size: 11, width: inner - 172 - 2 * BLANK, most: 1 });
    if (step.entry === "read") {
      paper.text("read", right - 2 * BLANK, y + 3, { size: 8, grey: true });
      paper.line(right - 2 * BLANK + 22, y + 13, right - BLANK - 6, y + 13);
    }
    paper.text("at", right - BLANK, y + 3, { size: 8, grey: true });
    paper.line(right - BLANK + 12, y + 13, right, y + 13);
    y += ROW;
  }
  room(66);
  y = paper.text(
    "Hot wax burns, and can catch fire: never leave a pot on the heat, keep a lid and a fire blanket at hand, and never put water on burning wax. The supplier's sheet and your local rules come first.",
    MARGIN,
    y + 8,
    { size: 9, width: inner },
  );
  paper.text("Notes", MARGIN, y + 6, { size: 9, grey: true });
  for (let n = 1; n <= 3; n++) if (y + 6 + n * 20 <= bottom) paper.line(MARGIN, y + 8 + n * 20, right, y + 8 + n * 20, 0.4);
}

function portionsOf(mg: number, capacityMg: number, resolutionUg: number): number[] | null {
  try {
    // A container weighs about a fifth of what a small scale takes: common practice, no source.
    return portionsFor(mg, capacityMg, Math.round(capacityMg / 5), resolutionUg);
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

const timeOf = (step: Step): string =>
  step.seconds !== undefined
    ? writeDuration(step.seconds)
    : step.least !== undefined
      ? `at least ${writeDuration(step.least)}${step.most !== undefined ? `, at most ${writeDuration(step.most)}` : ""}`
      : (step.figure ?? "");

/** A tag for each jar, in mm; three across. They are cut along the lines. */
const TAG = { width: 60, height: 40 };

/** The most tags that are drawn at once: about a hundred pages. */
export const MAX_TAGS = 2_000;
export const tagsOf = (sheets: readonly Pick<SheetOf, "plan">[]): number =>
  sheets.reduce((sum, { plan }) => sum + plan.products.reduce((all, product) => all + product.count, 0), 0);

/** Tags for the jars of batches: wax, wick, fragrance, load, day and batch. Of all of them `count`, the first of them at place `from`, counted from 0. */
export async function jarTags(
  sheets: readonly SheetOf[],
  size: PaperSize,
  units: PaperUnits,
  { from, count }: { from: number; count: number } = { from: 0, count: MAX_TAGS },
): Promise<Buffer> {
  const paper = new Paper(size, "Jar tags");
  const manner = MANNERS[isLocale(units.locale) ? units.locale : "en-GB"];
  const [wide, high] = [TAG.width * MM, TAG.height * MM];
  const across = Math.floor((paper.width - 10 * MM) / wide);
  const down = Math.floor((paper.height - 10 * MM) / high);
  const [left, top] = [(paper.width - across * wide) / 2, (paper.height - down * high) / 2];
  let [n, skip] = [0, from];
  for (const { name, day, plan } of sheets)
    for (const product of plan.products) {
      const skipped = Math.min(skip, product.count);
      skip -= skipped;
      for (let piece = skipped; piece < product.count && n < count; piece++, n++) {
        if (n % (across * down) === 0) paper.page();
        const x = left + (n % across) * wide;
        const y = top + (Math.floor(n / across) % down) * high;
        paper.box(x, y, wide, high, 0.3);
        const pot = plan.pots[0] as BatchPlan["pots"][number];
        const of = (kind: string) => pot.components.filter((part) => part.kind === kind);
        const [wax, oil] = [of("wax"), of("fragrance")].map((parts) => parts.reduce((sum, part) => sum + part.mg, 0)) as [number, number];
        const inner = wide - 16;
        let at = paper.text(titleOf(plan), x + 8, y + 7, { size: 11, bold: true, width: inner, most: 1 });
        at = paper.text(product.part ? `${product.name}, ${writePart(product.part)}` : product.name, x + 8, at, { size: 9, width: inner, most: 1 });
        const lines = [
          `wax: ${of("wax")
            .map((part) => part.name)
            .join(" + ")}`,
          product.wicks ? `wick: ${product.wicks.count} × ${product.wicks.name}` : "no wick",
          oil > 0
            ? `scent: ${of("fragrance")
                .map((part) => part.name)
                .join(" + ")}, ${inManner(writePercent(Math.round((oil / wax) * 1_000_000), 1), manner)} of the wax`
            : "unscented",
        ];
        for (const line of lines) at = paper.text(line, x + 8, at + 1, { size: 8, width: inner, most: 1 });
        paper.text(`poured ${writeDay(day, manner.date)}`, x + 8, y + high - 18, { size: 9, bold: true });
        paper.text(name, x + 8, y + high - 18, { size: 9, bold: true, width: inner, align: "right" });
      }
    }
  if (n === 0) paper.page();
  return paper.end();
}
