import { type LabelSheet, PAPERS, perSheet, placeOf, testSquareAt, testSquareUm, writeLength } from "@hearth/core";
import { create } from "qrcode";
import { type Block, type Laid, layLabel } from "./label-layout";
import { MM, Paper } from "./paper";

const points = (um: number) => (um / 1_000) * MM;

function paint(paper: Paper, laid: Laid, x: number, y: number): void {
  for (const shape of laid.shapes) {
    if (shape.is === "text") paper.text(shape.text, x + shape.x, y + shape.y, { size: shape.size, bold: shape.bold });
    else if (shape.is === "sign") paper.shape(shape.paths, x + shape.x, y + shape.y, shape.size);
    else paper.code(shape.address, x + shape.x, y + shape.y, shape.size);
  }
}

/** Returns a paper that only measures. */
const measuring = () => new Paper([10, 10], "");

/** Labels on a sheet as PDF, the first at place `from` (counted from 0): each laid out once, however often it is printed. Null if a label does not fit. */
export async function labelPdf(
  blocks: readonly Block[],
  sheet: LabelSheet,
  asked: { title: string; count: number; from: number; test: boolean },
): Promise<Buffer | null> {
  const size = PAPERS[sheet.paper];
  const paper = new Paper([size.width * MM, size.height * MM], asked.title);
  const laid = layLabel(paper, blocks, sheet);
  if (!laid) return null;
  let page = -1;
  const square = testSquareAt(sheet);
  const side = testSquareUm(sheet);
  const test = (at: { x: number; y: number }) => {
    paper.box(points(at.x), points(at.y), points(side), points(side), 0.5);
    paper.text(
      `${writeLength(side, sheet.paper === "letter" ? "in" : "mm")} square: measure it, and print at 100 %.`,
      points(at.x + side) + 6,
      points(at.y) + 2,
      { size: 8 },
    );
  };
  if (asked.test && !square) {
    paper.page();
    test({ x: 20_000, y: 20_000 });
  }
  for (let n = asked.from; n < asked.from + asked.count; n++) {
    const at = placeOf(sheet, n);
    if (at.page !== page) {
      page = at.page;
      paper.page();
      if (asked.test && square) test(square);
      if (asked.test)
        for (let every = 0; every < perSheet(sheet); every++) {
          const { x, y } = placeOf(sheet, every);
          if (sheet.round) paper.circle(points(x + sheet.width / 2), points(y + sheet.height / 2), points(sheet.width / 2));
          else paper.box(points(x), points(y), points(sheet.width), points(sheet.height), 0.3);
        }
    }
    paint(paper, laid, points(at.x), points(at.y));
  }
  return paper.end();
}

const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
const n = (value: number) => String(Math.round(value * 100) / 100);

/** One label as a picture, laid out as it is printed; null if it does not fit. */
export function labelSvg(blocks: readonly Block[], sheet: LabelSheet, title: string): string | null {
  const paper = measuring();
  const laid = layLabel(paper, blocks, sheet);
  if (!laid) return null;
  const [width, height] = [points(sheet.width), points(sheet.height)];
  const shapes = laid.shapes.map((shape) => {
    if (shape.is === "text")
      // As wide as it is printed, whatever typeface draws it here.
      return `<text x="${n(shape.x)}" y="${n(shape.y + shape.size * 0.92)}" font-size="${n(shape.size)}"${shape.bold ? ' font-weight="700"' : ""} textLength="${n(paper.measure(shape.text, shape.size, shape.bold))}" lengthAdjust="spacingAndGlyphs">${escaped(shape.text)}</text>`;
    if (shape.is === "sign")
      return `<g transform="translate(${n(shape.x)} ${n(shape.y)}) scale(${n(shape.size / 100)})">${shape.paths
        .map(
          (path) =>
            `<path d="${path.d}" fill="${path.fill ?? "none"}"${path.stroke ? ` stroke="${path.color ?? "#000"}" stroke-width="${path.stroke}" stroke-linecap="round" stroke-linejoin="round"` : ""}/>`,
        )
        .join("")}</g>`;
    const { modules } = create(shape.address, { errorCorrectionLevel: "M" });
    const each = shape.size / (modules.size + 8);
    let d = "";
    for (let row = 0; row < modules.size; row++)
      for (let column = 0; column < modules.size; column++)
        if (modules.get(row, column)) d += `M${n(shape.x + (column + 4) * each)} ${n(shape.y + (row + 4) * each)}h${n(each)}v${n(each)}h-${n(each)}z`;
    return `<path d="${d}"/>`;
  });
  const edge = sheet.round
    ? `<circle cx="${n(width / 2)}" cy="${n(height / 2)}" r="${n(width / 2 - 0.3)}" fill="#fff" stroke="#888" stroke-width="0.4"/>`
    : `<rect x="0.2" y="0.2" width="${n(width - 0.4)}" height="${n(height - 0.4)}" fill="#fff" stroke="#888" stroke-width="0.4"/>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${n(width)} ${n(height)}" width="${n(width)}pt" height="${n(height)}pt" font-family="sans-serif"><title>${escaped(title)}</title>${edge}${shapes.join("")}</svg>\n`;
}
