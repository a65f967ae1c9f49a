import { decodeSheet, type Sheet, separatorOf } from "@hearth/core";
import Papa from "papaparse";

const utf8 = (bytes: Uint8Array): string | null => {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
};

type Read = { ok: true; sheet: Required<Sheet> } | { ok: false; message: string };

/** Reads the bytes of a CSV file, as spreadsheets really write them, into heads and rows; a message where it is none. */
export function parseFile(bytes: Uint8Array): Read {
  if (bytes.length > 800_000) return { ok: false, message: "This file is larger than 800 kB. Split it, or remove rows that are not for the shelf." };
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return { ok: false, message: "This is a workbook, not a CSV file. In the spreadsheet choose “save as CSV”." };
  return parseText(decodeSheet(bytes, utf8));
}

/** Reads the text of a CSV file, or rows as they are pasted from a spreadsheet. */
export function parseText(whole: string): Read {
  const text = whole.replace(/^sep=.\r?\n/i, "");
  if (text.includes("\u0000")) return { ok: false, message: "This is not a text file. In the spreadsheet choose “save as CSV”." };
  const delimiter = separatorOf(text.replace(/^\s*\n/, ""));
  const parsed = Papa.parse<string[]>(text, { delimiter, skipEmptyLines: false });
  const broken = parsed.errors.find((error) => error.type === "Quotes");
  if (broken) return { ok: false, message: `A quotation mark is not closed near row ${(broken.row ?? 0) + 1}, so the rest of the file cannot be read.` };
  const rows = parsed.data;
  const first = rows.findIndex((row) => row.some((cell) => cell.trim() !== ""));
  const heads = rows[first];
  if (!heads) return { ok: false, message: "This file is empty." };
  const body = rows.slice(first + 1);
  // A file ends with a line break, which is no row; rows above the heads keep their numbers.
  if (body.at(-1)?.every((cell) => cell === "")) body.pop();
  return {
    ok: true,
    sheet: { heads: heads.map((head) => head.trim()), rows: [...Array.from({ length: first }, () => []), ...body], decimalComma: delimiter === ";" },
  };
}
