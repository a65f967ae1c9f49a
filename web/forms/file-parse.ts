import type { Sheet } from "@hearth/core";
import { cellsOfCsv, textOfCsv } from "@/workers/csv-cells";

type Read = { ok: true; sheet: Required<Sheet> } | { ok: false; message: string };

/** Reads the bytes of a CSV file, as spreadsheets really write them, into heads and rows; a message where it is none. */
export function parseFile(bytes: Uint8Array): Read {
  if (bytes.length > 800_000) return { ok: false, message: "This file is larger than 800 kB. Split it, or remove rows that are not for the shelf." };
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return { ok: false, message: "This is a workbook, not a CSV file. In the spreadsheet choose “save as CSV”." };
  return parseText(textOfCsv(bytes));
}

/** Reads the text of a CSV file, or rows as they are pasted from a spreadsheet. */
export function parseText(whole: string): Read {
  const read = cellsOfCsv(whole, "“save as CSV”");
  if (!read.ok) return read;
  const { rows, decimalComma } = read;
  const first = rows.findIndex((row) => row.some((cell) => cell.trim() !== ""));
  const heads = rows[first];
  if (!heads) return { ok: false, message: "This file is empty." };
  const body = rows.slice(first + 1);
  // A file ends with a line break, which is no row; rows above the heads keep their numbers.
  if (body.at(-1)?.every((cell) => cell === "")) body.pop();
  return {
    ok: true,
    sheet: { heads: heads.map((head) => head.trim()), rows: [...Array.from({ length: first }, () => []), ...body], decimalComma },
  };
}
