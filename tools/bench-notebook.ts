import { cellName, METRIC } from "@hearth/core";
import { strToU8, zipSync } from "fflate";
import { notebookGrid } from "../demo/notebook";
import { beginReading, previewOf } from "../web/features/records/notebook/model";
import { gridOfFile } from "../web/workers/grid-parse";
import { median } from "./bench-log";

const ROWS = 2_000;
/** A preview takes at most so long on this machine, and so many times as long as reading the file. */
const MAX_SECONDS = 3;
const MAX_RATIO = 5;
const TURNS = 7;
const TODAY = "2026-03-14";

const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** Returns a sheet as the smallest workbook that a spreadsheet opens: one sheet, its texts within its cells. */
function workbookOf(grid: readonly (readonly string[])[]): Uint8Array<ArrayBuffer> {
  const head = '<?xml version="1.0" encoding="UTF-8"?>';
  const main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
  const relations = "http://schemas.openxmlformats.org/package/2006/relationships";
  const office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
  const rows = grid
    .map(
      (cells, row) =>
        `<row r="${row + 1}">${cells.map((text, column) => `<c r="${cellName(column, row + 1)}" t="inlineStr"><is><t>${escaped(text)}</t></is></c>`).join("")}</row>`,
    )
    .join("");
  const types = "application/vnd.openxmlformats-officedocument.spreadsheetml";
  const files = {
    "[Content_Types].xml": `${head}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="${types}.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="${types}.worksheet+xml"/><Override PartName="/xl/styles.xml" ContentType="${types}.styles+xml"/></Types>`,
    "_rels/.rels": `${head}<Relationships xmlns="${relations}"><Relationship Id="rId1" Type="${office}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    "xl/workbook.xml": `${head}<workbook xmlns="${main}" xmlns:r="${office}"><sheets><sheet name="Pours" sheetId="1" r:id="rId1"/></sheets></workbook>`,
    "xl/_rels/workbook.xml.rels": `${head}<Relationships xmlns="${relations}"><Relationship Id="rId1" Type="${office}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="rId2" Type="${office}/styles" Target="styles.xml"/></Relationships>`,
    "xl/styles.xml": `${head}<styleSheet xmlns="${main}"><cellXfs count="1"><xf numFmtId="0"/></cellXfs></styleSheet>`,
    "xl/worksheets/sheet1.xml": `${head}<worksheet xmlns="${main}"><sheetData>${rows}</sheetData></worksheet>`,
  };
  return zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)]))) as Uint8Array<ArrayBuffer>;
}

/** How long a preview of an imported notebook takes beside reading its file. */
export async function benchNotebook(): Promise<void> {
  const bytes = workbookOf(notebookGrid(ROWS, TODAY).map((row) => Array.from({ length: 15 }, (_, index) => row[index] ?? "")));
  const [parsing, previewing]: [number[], number[]] = [[], []];
  let shown = 0;
  for (let turn = 0; turn < TURNS; turn++) {
    const began = performance.now();
    const read = await gridOfFile(bytes, "pours.xlsx");
    if (!read.ok) throw new Error(read.message);
    const parsed = performance.now();
    const reading = beginReading("batches", read.sheets[0]?.grid ?? [], { units: METRIC, dayOrder: "month", decimalComma: false });
    if (!reading) throw new Error("The sheet holds nothing.");
    const { rows } = previewOf(reading, { wax: [], fragrance: [], vessel: [], wick: [] }, {}, TODAY);
    const done = performance.now();
    shown = rows.filter((row) => row.fate === "taken").length;
    parsing.push(parsed - began);
    previewing.push(done - parsed);
  }
  const [parse, preview] = [median(parsing), median(previewing)];
  const whole = (parse + preview) / 1_000;
  console.log(
    `a notebook of ${ROWS} rows as XLSX: read in ${parse.toFixed(0)} ms, previewed in ${preview.toFixed(0)} ms (${shown} rows taken); in all ${whole.toFixed(2)} s (at most ${MAX_SECONDS})${whole > MAX_SECONDS ? "  ABOVE" : ""}; preview to reading ${(preview / parse).toFixed(2)} (at most ${MAX_RATIO})${preview / parse > MAX_RATIO ? "  ABOVE" : ""}`,
  );
}
