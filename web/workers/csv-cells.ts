import { decodeSheet, separatorOf } from "@hearth/core";
import Papa from "papaparse";

const utf8 = (bytes: Uint8Array): string | null => {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
};

/** Returns the text of a CSV file, as spreadsheets really write it. */
export const textOfCsv = (bytes: Uint8Array): string => decodeSheet(bytes, utf8);

export type CsvCells =
  /** Where cells are parted by semicolons, the comma is the decimal mark. */
  { ok: true; rows: string[][]; decimalComma: boolean } | { ok: false; message: string };

/** Reads the text of a CSV file, or rows as they are pasted from a spreadsheet, into cells. A message where it is none. @param instead what to save the file as */
export function cellsOfCsv(whole: string, instead: string): CsvCells {
  const text = whole.replace(/^sep=.\r?\n/i, "");
  if (text.includes("\u0000")) return { ok: false, message: `This is not a text file. In the spreadsheet choose ${instead}.` };
  const delimiter = separatorOf(text.replace(/^\s*\n/, ""));
  const parsed = Papa.parse<string[]>(text, { delimiter, skipEmptyLines: false });
  const broken = parsed.errors.find((error) => error.type === "Quotes");
  if (broken) return { ok: false, message: `A quotation mark is not closed near row ${(broken.row ?? 0) + 1}, so the rest of the file cannot be read.` };
  return { ok: true, rows: parsed.data, decimalComma: delimiter === ";" };
}
