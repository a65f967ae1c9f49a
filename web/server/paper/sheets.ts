import {
  type BatchPlan,
  componentNames,
  contentsOf,
  countWords,
  HOT_WAX,
  isLocale,
  LOCALE_FORMATS,
  localize,
  type Prompt,
  portionsFor,
  potOfProduct,
  promptsOf,
  titleOf,
  typedUnit,
  writeBulk,
  writeDay,
  writeDuration,
  writeEmbeds,
  writeMass,
  writeOnScale,
  writePart,
  writePercent,
  writeRange,
} from "@hearth/core";
import { MARGIN, MM, Paper, type PaperSize } from "./paper";

/** The batch that a sheet is printed for. */
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
  temperatureUnit: "C" | "F";
  locale: string;
}

/** Of scales that take little: what they take, by their id. */
export type Capacities = ReadonlyMap<string, number>;

const ROW = 20;
const BLANK = 78;

/** Sheets of batches, one after another: what to weigh, into which pitcher, the ranges, and blanks for what is read. */
export async function batchSheets(sheets: readonly SheetOf[], size: PaperSize, units: PaperUnits, capacities: Capacities): Promise<Buffer> {
  const paper = new Paper(size, sheets.length === 1 ? `${sheets[0]?.name ?? ""} ${titleOf((sheets[0] as SheetOf).plan)}` : "Batch sheets");
  for (const sheet of sheets) batchSheet(paper, sheet, units, capacities);
  return paper.end();
}

/** How far a sheet is written, and where a new page begins. */
class Pen {
  y = 0;
  pages = 0;
  constructor(
    private readonly paper: Paper,
    private readonly name: string,
    /** What stands at the foot of each page, before its number. */
    private readonly foot: string,
  ) {}
  newPage(): void {
    this.paper.page();
    this.pages += 1;
    this.y = MARGIN;
    this.paper.text(`${this.foot}, page ${this.pages}`, MARGIN, this.paper.height - MARGIN - 4, { size: 8, gray: true });
  }
  /** Makes room for so much, on a new page where it has to be. */
  room(height: number): void {
    if (this.y + height <= bottomOf(this.paper)) return;
    this.newPage();
    this.y = this.paper.text(`${this.name} (continued)`, MARGIN, this.y, { size: 11, bold: true }) + 6;
  }
  section(text: string): void {
    this.room(50);
    this.y = this.paper.text(text, MARGIN, this.y + 8, { size: 12, bold: true });
    this.paper.line(MARGIN, this.y + 1, this.paper.width - MARGIN, this.y + 1, 1.4);
    this.y += 7;
  }
}
const bottomOf = (paper: Paper): number => paper.height - MARGIN - 14;

/** A sheet as it is drawn: what it is of, in which units, and what each scale carries. */
interface Drawn extends SheetOf {
  units: PaperUnits;
  capacities: Capacities;
  manner: (typeof LOCALE_FORMATS)[keyof typeof LOCALE_FORMATS];
  /** A text with its numbers in the manner of the workshop. */
  say: (text: string) => string;
}

/** The head of a sheet: its name, day and products, and the code that opens it. */
function drawHead(paper: Paper, pen: Pen, { name, day, plan, address, opens, units, manner, say }: Drawn): void {
  const right = paper.width - MARGIN;
  const inner = right - MARGIN;
  const title = titleOf(plan);
  pen.newPage();
  const code = 34 * MM;
  paper.code(address, right - code, MARGIN - 8, code);
  paper.text(opens, right - code, MARGIN - 8 + code, { size: 8, gray: true, width: code });
  pen.y = paper.text(name, MARGIN, pen.y, { size: 26, bold: true, width: inner - code - 12 });
  pen.y = paper.text(title, MARGIN, pen.y, { size: 15, bold: true, width: inner - code - 12, most: 2 });
  pen.y = paper.text(`${writeDay(day, manner.day)} ${day.slice(0, 4)}`, MARGIN, pen.y + 2, { size: 11 });
  for (const product of plan.products)
    pen.y = paper.text(
      `${product.count} × ${product.name}${product.part ? `, ${writePart(product.part)}` : ""}, ${say(writeMass(product.fillMg, units.massUnit))} each${product.wicks ? `, ${product.wicks.count} × ${product.wicks.name}` : ""}${product.embeds ? `, ${writeEmbeds(product.embeds)} laid in` : ""}`,
      MARGIN,
      pen.y + 1,
      {
        size: 11,
        width: inner - code - 12,
      },
    );
  paper.text("Made by", MARGIN, pen.y + 10, { size: 9, gray: true });
  paper.line(MARGIN + 44, pen.y + 20, MARGIN + 200, pen.y + 20);
  pen.y = Math.max(pen.y + 26, MARGIN + code + 12);
}

type PlanPot = SheetOf["plan"]["pots"][number];

/** One part to be weighed: its amount, by pitchers and in the portions that its scale carries, with room for what was weighed. */
function drawPart(paper: Paper, pen: Pen, part: PlanPot["components"][number], pitchers: PlanPot["pitchers"] | null, { units, capacities, say }: Drawn): void {
  const right = paper.width - MARGIN;
  const inner = right - MARGIN;
  const amount = part.count ? countWords(part.count.n, part.count.of) : say(writeOnScale(part.mg, part.scale));
  const each = pitchers?.map((pitcher) => {
    const share = pitcher.components.find((other) => other.id === part.id);
    return share?.n !== undefined ? countWords(share.n, part.count?.of ?? "drops") : say(writeOnScale(share?.mg ?? 0, part.scale));
  });
  const capacity = capacities.get(part.scale.id ?? "");
  const parts = !part.count && capacity !== undefined && part.mg > capacity ? portionsOf(part.mg, capacity, part.scale.resolutionUg) : null;
  const inOther = !part.count && typedUnit(part.scale) !== units.massUnit;
  const below = [
    ...(inOther ? [`= ${say(writeMass(part.mg, units.massUnit))}`] : []),
    ...(each ? [`by pitcher: ${each.join(" + ")}`] : []),
    ...(parts ? [`in ${parts.length} parts on this scale: ${parts.map((mg) => say(writeOnScale(mg, part.scale))).join(" + ")}`] : []),
  ];
  pen.room(ROW + below.length * 12);
  paper.tick(MARGIN, pen.y + 2);
  paper.text(part.name, MARGIN + 18, pen.y + 1, { size: 11, bold: true, width: inner - 330, most: 1 });
  paper.text(amount, right - 306, pen.y - 2, { size: 15, bold: true, width: 110, align: "right" });
  paper.text(part.count ? "" : part.scale.name, right - 188, pen.y + 2, { size: 9, gray: true, width: 84, most: 1 });
  paper.text("weighed", right - 100, pen.y + 3, { size: 8, gray: true });
  paper.line(right - 62, pen.y + 13, right, pen.y + 13);
  pen.y += ROW;
  for (const text of below) pen.y = paper.text(text, MARGIN + 18, pen.y - 4, { size: 9, width: inner - 20 }) + 3;
}

/** What is weighed for each pot. */
function drawWeighing(paper: Paper, pen: Pen, sheet: Drawn): void {
  const { plan, units, say } = sheet;
  for (const [potAt, pot] of plan.pots.entries()) {
    pen.section(plan.pots.length > 1 ? `Weigh, pot ${potAt + 1}: ${pot.formulaName}` : "Weigh");
    const pitchers = pot.pitchers && pot.pitchers.length > 1 ? pot.pitchers : null;
    if (pot.restOf !== undefined)
      pen.y =
        paper.text(`What is left of pot ${pot.restOf + 1}: about ${say(writeBulk(pot.baseMg ?? 0, units.massUnit))}. Add:`, MARGIN + 18, pen.y, { size: 10 }) +
        3;
    for (const part of pot.components) drawPart(paper, pen, part, pitchers, sheet);
    pen.y = paper.text(
      `Together ${say(writeBulk(pot.totalMg, units.massUnit))}${pot.sparePpm > 0 ? `, with ${say(writePercent(pot.sparePpm, 1))} extra` : ""}${pitchers ? `, in ${pitchers.length} pitchers` : ""}`,
      MARGIN + 18,
      pen.y,
      { size: 9, gray: true },
    );
  }
}

/** What is done and read, with room for readings and times. */
function drawSteps(paper: Paper, pen: Pen, { plan, say, units }: Drawn): void {
  const right = paper.width - MARGIN;
  const inner = right - MARGIN;
  pen.section("Steps and readings");
  for (const prompt of promptsOf(plan).filter((prompt) => prompt.entry !== "weighed" && prompt.entry !== "counted")) {
    const range = [prompt.range ? say(writeRange(prompt.range, units.temperatureUnit)) : "", timeOf(prompt)].filter(Boolean).join(", ");
    pen.room(ROW + 4);
    paper.tick(MARGIN, pen.y + 2);
    paper.text(plan.pots.length > 1 ? `${prompt.name}, pot ${prompt.pot + 1}` : prompt.name, MARGIN + 18, pen.y + 1, {
      size: 11,
      bold: true,
      width: 150,
      most: 1,
    });
    paper.text(range, MARGIN + 172, pen.y + 1, { size: 11, width: inner - 172 - (prompt.entry === "read" ? 2 : 1) * BLANK, most: 1 });
    if (prompt.entry === "read") {
      paper.text("read", right - 2 * BLANK, pen.y + 3, { size: 8, gray: true });
      paper.line(right - 2 * BLANK + 22, pen.y + 13, right - BLANK - 6, pen.y + 13);
    }
    paper.text("at", right - BLANK, pen.y + 3, { size: 8, gray: true });
    paper.line(right - BLANK + 12, pen.y + 13, right, pen.y + 13);
    pen.y += ROW;
  }
}

function batchSheet(paper: Paper, of: SheetOf, units: PaperUnits, capacities: Capacities): void {
  const manner = LOCALE_FORMATS[isLocale(units.locale) ? units.locale : "en-GB"];
  const sheet: Drawn = { ...of, units, capacities, manner, say: (text) => localize(text, manner) };
  const right = paper.width - MARGIN;
  const inner = right - MARGIN;
  const bottom = bottomOf(paper);
  const pen = new Pen(paper, of.name, `${of.name}, ${titleOf(of.plan)}, ${writeDay(of.day, manner.date)}`);
  drawHead(paper, pen, sheet);
  drawWeighing(paper, pen, sheet);
  drawSteps(paper, pen, sheet);
  pen.room(66);
  pen.y = paper.text(HOT_WAX, MARGIN, pen.y + 8, { size: 9, width: inner });
  paper.text("Notes", MARGIN, pen.y + 6, { size: 9, gray: true });
  for (let n = 1; n <= 3; n++) if (pen.y + 6 + n * 20 <= bottom) paper.line(MARGIN, pen.y + 8 + n * 20, right, pen.y + 8 + n * 20, 0.4);
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

const timeOf = (prompt: Prompt): string =>
  prompt.seconds !== undefined
    ? writeDuration(prompt.seconds)
    : prompt.least !== undefined
      ? `at least ${writeDuration(prompt.least)}${prompt.most !== undefined ? `, at most ${writeDuration(prompt.most)}` : ""}`
      : (prompt.figure ?? "");

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
  const manner = LOCALE_FORMATS[isLocale(units.locale) ? units.locale : "en-GB"];
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
        const parts = contentsOf(plan, potOfProduct(product));
        const of = (kind: string) => parts.filter((part) => part.kind === kind);
        const [wax, oil] = [of("wax"), of("fragrance")].map((parts) => parts.reduce((sum, part) => sum + part.mg, 0)) as [number, number];
        const inner = wide - 16;
        let at = paper.text(titleOf(plan), x + 8, y + 7, { size: 11, bold: true, width: inner, most: 1 });
        at = paper.text(product.part ? `${product.name}, ${writePart(product.part)}` : product.name, x + 8, at, { size: 9, width: inner, most: 1 });
        const lines = [
          `wax: ${componentNames(parts, "wax")}`,
          product.wicks ? `wick: ${product.wicks.count} × ${product.wicks.name}` : "no wick",
          oil > 0
            ? `scent: ${componentNames(parts, "fragrance")}, ${localize(writePercent(Math.round((oil / wax) * 1_000_000), 1), manner)} of the wax`
            : "unscented",
          ...(of("dye").length > 0 ? [`color: ${componentNames(parts, "dye")}`] : []),
        ];
        for (const line of lines) at = paper.text(line, x + 8, at + 1, { size: 8, width: inner, most: 1 });
        paper.text(`poured ${writeDay(day, manner.date)}`, x + 8, y + high - 18, { size: 9, bold: true });
        paper.text(name, x + 8, y + high - 18, { size: 9, bold: true, width: inner, align: "right" });
      }
    }
  if (n === 0) paper.page();
  return paper.end();
}
