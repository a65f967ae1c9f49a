import type { Grid } from "@hearth/core";
import readWorkbook from "read-excel-file/universal";
import { cellsOfCsv, textOfCsv } from "./csv-cells";

/** A file as cells of text: one grid for each sheet that holds something. */
export interface GridFile {
  sheets: { name: string; grid: Grid }[];
  /** Where cells are parted by semicolons, the comma is the decimal mark. */
  decimalComma: boolean;
}
export type GridRead = ({ ok: true } & GridFile) | { ok: false; message: string };

/** A request may have a megabyte; a notebook of ten years has less. */
const MAX_BYTES = 5_000_000;

/** Returns a cell of a workbook as text: a day as ISO text, a number with as many digits as it was typed with. */
function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return "";
  if (cell instanceof Date) return Number.isNaN(cell.getTime()) ? "" : cell.toISOString().slice(0, 10);
  // A sum of decimals has digits at its end that nobody typed.
  if (typeof cell === "number") return String(Number(cell.toPrecision(12)));
  if (typeof cell === "boolean") return cell ? "yes" : "no";
  return String(cell).trim();
}

/** Reads pasted rows, or the text of a CSV file, into cells. */
export function gridOfText(whole: string, name = "pasted rows"): GridRead {
  if (whole.trim() === "") return { ok: false, message: "This file is empty." };
  const read = cellsOfCsv(whole, "“save as CSV” or “save as XLSX”");
  return read.ok ? { ok: true, sheets: [{ name, grid: read.rows.map((row) => row.map((cell) => cell.trim())) }], decimalComma: read.decimalComma } : read;
}

/** Reads a file: an XLSX workbook with its sheets, or CSV. A message where it is neither. */
export async function gridOfFile(bytes: Uint8Array<ArrayBuffer>, name: string): Promise<GridRead> {
  if (bytes.length > MAX_BYTES) return { ok: false, message: "This file is larger than 5 MB. Save the sheet with the notes alone, without pictures." };
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
  if (isZip && /\.ods$/i.test(name)) return { ok: false, message: "This is an ODS file. In the spreadsheet choose “save as XLSX” or “save as CSV”." };
  if (bytes[0] === 0xd0 && bytes[1] === 0xcf)
    return { ok: false, message: "This is an old XLS workbook. In the spreadsheet choose “save as XLSX” or “save as CSV”." };
  if (!isZip) return gridOfText(textOfCsv(bytes), name);
  try {
    const sheets = await readWorkbook(bytes.buffer);
    const filled = sheets
      .map(({ sheet, data }) => ({ name: sheet, grid: data.map((row) => row.map(cellText)) }))
      .filter(({ grid }) => grid.some((row) => row.some((cell) => cell !== "")));
    return filled.length > 0 ? { ok: true, sheets: filled, decimalComma: false } : { ok: false, message: "This workbook is empty." };
  } catch {
    return { ok: false, message: "This workbook cannot be read. In the spreadsheet choose “save as XLSX” or “save as CSV”." };
  }
}
