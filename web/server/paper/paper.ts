import { join } from "node:path";
import PDFDocument from "pdfkit";
import { create } from "qrcode";

/** Paper sizes in points: ISO 216 A4, 210 × 297 mm; US Letter, 8.5 × 11 in. */
export const SIZES = { a4: [595.28, 841.89], letter: [612, 792] } as const;
export type PaperSize = keyof typeof SIZES;

export const MM = 72 / 25.4;
export const MARGIN = 15 * MM;

/** Returns where the fonts lie; the server runs from the project's folder. */
const fontFile = (part: "latin" | "latin-ext", weight: 400 | 700) =>
  join(process.cwd(), `node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-${part}-${weight}-normal.woff`);

/** Returns which of the font's two files holds a sign; null for one that neither has. */
function partOf(code: number): "latin" | "latin-ext" | null {
  if (code <= 0xff || (code >= 0x2000 && code <= 0x206f) || [0x131, 0x152, 0x153, 0x20ac, 0x2122, 0x2212].includes(code)) return "latin";
  return code <= 0x2ba || (code >= 0x1e00 && code <= 0x1e9f) ? "latin-ext" : null;
}

export interface TextOptions {
  size?: number;
  bold?: boolean;
  /** Wraps within so much; without it, one line. */
  width?: number;
  align?: "left" | "right";
  gray?: boolean;
  /** No more than so many lines; what is left is cut off with an ellipsis. */
  most?: number;
}

/** A document to be printed to scale: places in points from the top left corner of the page. */
export class Paper {
  readonly width: number;
  readonly height: number;
  private readonly doc: PDFKit.PDFDocument;
  private readonly chunks: Buffer[] = [];
  private readonly done: Promise<Buffer>;

  constructor(size: PaperSize | readonly [number, number], title: string) {
    const [width, height] = typeof size === "string" ? SIZES[size] : size;
    this.width = width;
    this.height = height;
    this.doc = new PDFDocument({
      size: [width, height],
      margin: 0,
      autoFirstPage: false,
      font: fontFile("latin", 400),
      info: { Title: title, Creator: "Hearth Jar" },
      lang: "en",
    });
    for (const part of ["latin", "latin-ext"] as const)
      for (const weight of [400, 700] as const) this.doc.registerFont(`${part}${weight}`, fontFile(part, weight));
    this.done = new Promise((resolve, reject) => {
      this.doc.on("data", (chunk: Buffer) => this.chunks.push(chunk));
      this.doc.on("end", () => resolve(Buffer.concat(this.chunks)));
      this.doc.on("error", reject);
    });
  }

  page(): void {
    this.doc.addPage({ size: [this.width, this.height], margin: 0 });
  }

  /** Runs of a text, each in the file that holds its signs. */
  private runs(text: string, bold: boolean): { font: string; text: string }[] {
    const out: { font: string; text: string }[] = [];
    for (const sign of text) {
      const part = partOf(sign.codePointAt(0) ?? 0);
      const font = `${part ?? "latin"}${bold ? 700 : 400}`;
      const last = out.at(-1);
      if (last?.font === font) last.text += part ? sign : "?";
      else out.push({ font, text: part ? sign : "?" });
    }
    return out;
  }
  private font = "";
  /** Takes a font in hand; the one that is in hand already costs nothing. */
  private set(font: string): PDFKit.PDFDocument {
    if (this.font !== font) this.doc.font(font);
    this.font = font;
    return this.doc;
  }
  private readonly widths = new Map<string, number>();
  /** Returns how wide a text is, in points: as wide as at any other size, to scale, so that each is measured once. */
  measure(text: string, size: number, bold: boolean): number {
    const key = `${bold ? "b" : "r"}${text}`;
    let width = this.widths.get(key);
    if (width === undefined) {
      width = this.runs(text, bold).reduce((sum, run) => sum + this.set(run.font).fontSize(100).widthOfString(run.text), 0) / 100;
      this.widths.set(key, width);
    }
    return width * size;
  }
  /** Returns lines of a text that fit a width, no more than are wanted and one; a word that is wider than all of it is cut into pieces. */
  lines(text: string, size: number, bold: boolean, width: number, most: number): string[] {
    const out: string[] = [];
    const space = this.measure(" ", size, bold);
    let line = "";
    let used = 0;
    for (const word of text.split(/\s+/).filter(Boolean)) {
      if (out.length > most) break;
      let rest = word;
      let wide = this.measure(rest, size, bold);
      while ((line ? used + space : 0) + wide > width) {
        if (line) {
          out.push(line);
          line = "";
          used = 0;
          continue;
        }
        let n = rest.length - 1;
        while (n > 1 && this.measure(rest.slice(0, n), size, bold) > width) n--;
        out.push(rest.slice(0, n));
        rest = rest.slice(n);
        wide = this.measure(rest, size, bold);
        if (rest === "") break;
      }
      used = line ? used + space + wide : wide;
      line = line ? `${line} ${rest}` : rest;
    }
    return line ? [...out, line] : out;
  }

  /** Writes a text; gives the place below it. */
  text(text: string, x: number, y: number, { size = 10, bold = false, width, align = "left", gray = false, most = 99 }: TextOptions = {}): number {
    let lines = width === undefined ? [text] : this.lines(text, size, bold, width, most);
    if (lines.length > most) lines = [...lines.slice(0, most - 1), `${(lines[most - 1] ?? "").slice(0, -1)}…`];
    let at = y;
    for (const line of lines) {
      let left = align === "right" ? x + (width ?? 0) - this.measure(line, size, bold) : x;
      for (const run of this.runs(line, bold)) {
        this.set(run.font)
          .fontSize(size)
          .fillColor(gray ? "#555" : "#000")
          .text(run.text, left, at, { lineBreak: false });
        left += this.measure(run.text, size, bold);
      }
      at += size * 1.3;
    }
    return at;
  }

  line(x1: number, y1: number, x2: number, y2: number, width = 0.6): void {
    this.doc.lineWidth(width).strokeColor("#000").moveTo(x1, y1).lineTo(x2, y2).stroke();
  }
  box(x: number, y: number, width: number, height: number, line = 1): void {
    this.doc.lineWidth(line).strokeColor("#000").rect(x, y, width, height).stroke();
  }
  /** Outlines in a square of 100 by 100, put to a place at a size: filled, or drawn as lines. */
  shape(
    paths: readonly { d: string; fill?: "black" | "white" | undefined; stroke?: number | undefined; color?: string }[],
    x: number,
    y: number,
    size: number,
  ): void {
    this.doc
      .save()
      .translate(x, y)
      .scale(size / 100);
    for (const path of paths) {
      this.doc.path(path.d).lineJoin("round").lineCap("round");
      if (path.fill && path.stroke) this.doc.lineWidth(path.stroke).fillAndStroke(path.fill, path.color ?? "#000");
      else if (path.stroke)
        this.doc
          .lineWidth(path.stroke)
          .strokeColor(path.color ?? "#000")
          .stroke();
      else this.doc.fillColor(path.fill ?? "#000").fill();
    }
    this.doc.restore();
  }
  circle(x: number, y: number, radius: number, line = 0.3): void {
    this.doc.lineWidth(line).strokeColor("#000").circle(x, y, radius).stroke();
  }

  /** A box to tick. */
  tick(x: number, y: number, size = 10): void {
    this.box(x, y, size, size, 0.9);
  }

  /** A code that a phone reads: opens an address. Error correction M, and the quiet zone of four modules that ISO/IEC 18004 asks for lies within the size. */
  code(address: string, x: number, y: number, size: number): void {
    const { modules } = create(address, { errorCorrectionLevel: "M" });
    const each = size / (modules.size + 8);
    this.doc.fillColor("#000");
    for (let row = 0; row < modules.size; row++)
      for (let column = 0; column < modules.size; column++)
        if (modules.get(row, column)) this.doc.rect(x + (column + 4) * each, y + (row + 4) * each, each * 1.02, each * 1.02);
    this.doc.fill();
  }

  async end(): Promise<Buffer> {
    this.doc.end();
    return this.done;
  }
}
