import { RUNS_AS_FORMULA, type Sheet } from "@hearth/core";
import Papa from "papaparse";

/** A sheet as CSV with a mark for spreadsheets; cells that one would run as formulas are defused by an apostrophe. */
export const writeFile = (sheet: Sheet): string =>
  `\ufeff${Papa.unparse({ fields: sheet.heads, data: sheet.rows }, { newline: "\r\n", escapeFormulae: RUNS_AS_FORMULA })}\r\n`;
