import { dayIn, guessNames, guessReading, isNoteHead, monthNames, namesUsed, randomFrom, readNoteRows, tableOf, US_CUSTOMARY } from "@hearth/core";
import { eq } from "drizzle-orm";
import type { Database } from "../web/data/client";
import { workshops } from "../web/data/tables/workshop";
import { importNotesIn } from "../web/server/notebook/import-notes";
import type { NotesInput } from "../web/server/notebook/schema";
import { inTransaction } from "../web/server/shared/transaction";
import { demoId } from "./workshop";

/** A second workshop of the demo: somebody who kept a spreadsheet for three years, and has just brought it in. */
export const NOTES_WORKSHOP = {
  id: demoId(0, 3),
  name: "Barn loft candles, begun from notes",
  massUnit: "oz" as const,
  temperatureUnit: "F" as const,
  lengthUnit: "in" as const,
};

const DAY_MS = 86_400_000;
/** A batch every so many days. */
const EVERY_DAYS = 5;

/** Returns a day as one of three hands wrote it: 3/14/23, March 14, 2023 or 2023-03-14. */
function spelled(day: string, hand: number): string {
  const [year = 0, month = 1, date = 1] = day.split("-").map(Number);
  if (hand < 0.5) return `${month}/${date}/${String(year).slice(2)}`;
  return hand < 0.8 ? `${monthNames()[month - 1]} ${date}, ${year}` : day;
}

/**
 * Returns an invented sheet of past batches as makers keep them: a title, merged group headings, months between the rows, several spellings of dates and
 * loads, remarks in brackets. The soy is rough where it was poured hot; the other wax is not. The last batch is of the day before `today`.
 */
export function notebookGrid(many: number, today: string): string[][] {
  const random = randomFrom(11);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const last = Date.parse(`${today}T00:00:00Z`) - 30 * DAY_MS;
  const rows: string[][] = [
    ["Pours in the loft", "", "", "", "", "", "", "", "", "", "", "", "", "", ""],
    ["", "", "", "", "", "", "Temps (F)", "", "", "How it came out", "", "", "", "", ""],
    ["Date", "Wax", "FO", "FO %", "Jar", "#", "Melt", "Add", "Pour", "Tops", "Wet spots", "Cure", "CT", "Wick", "Notes"],
  ];
  let month = "";
  for (let n = many - 1; n >= 0; n--) {
    const at = new Date(last - n * EVERY_DAYS * DAY_MS);
    const day = dayIn(at.getUTCFullYear(), { month: at.getUTCMonth() + 1, day: at.getUTCDate() });
    if (day.slice(0, 7) !== month && n % 12 === 0) rows.push([`${monthNames()[at.getUTCMonth()]} ${at.getUTCFullYear()}`]);
    month = day.slice(0, 7);
    const wax = pick(["barn soy", "barn soy", "Barn Soy", "prairie coconut", "prairie coconut"]);
    const isHot = random() < 0.5;
    const pour = (isHot ? 150 : 130) + Math.floor(random() * 12);
    const isRough = random() < (wax !== "prairie coconut" && isHot ? 0.75 : 0.06);
    const jars = pick([6, 8, 12]);
    rows.push([
      spelled(day, random()),
      wax,
      pick(["orchard fruit", "rain barrel", "smoke & cedar"]),
      pick(["8%", "8", "1 oz/lb", "10%"]),
      pick(["8 oz tin", "loft tumbler 9 oz"]),
      pick([String(jars), `${jars} jars`]),
      "185",
      pick(["185F", "185", "~180"]),
      pick([String(pour), `${pour} (a guess)`]),
      isRough ? "rough" : pick(["smooth", "good"]),
      pick(["0", "1", "2", "n/a"]),
      "14",
      String((wax === "prairie coconut" ? 6 : 5) + Math.floor(random() * 4)),
      pick(["braid 4", "braid 5", "2 x braid 4"]),
      pick(["", "", "sold fast", "windy day"]),
    ]);
  }
  return rows;
}

/** Returns what a page would send of a sheet of past batches, with everything as it is proposed. */
export function notebookInput(importId: string, grid: string[][], today: string): NotesInput {
  const table = tableOf(grid, (head) => isNoteHead("batches", head));
  if (!table) throw new Error("The sheet holds nothing.");
  const { kind, table: _table, ...reading } = guessReading("batches", table, { units: US_CUSTOMARY, dayOrder: "month" });
  const rows = readNoteRows({ ...reading, kind, table }, today, () => false);
  const names = guessNames(namesUsed(rows), { wax: [], fragrance: [], vessel: [], wick: [] });
  return { importId, kind, file: "pours in the loft.xlsx", grid, reading, names } as NotesInput;
}

/** As many batches are in the sheet of the demo. */
const BATCHES = 90;

/** Puts the workshop that began from notes into a database, unless it is there. */
export async function putNotesWorkshop(db: Database, now: Date): Promise<void> {
  const [there] = await db.select({ id: workshops.id }).from(workshops).where(eq(workshops.id, NOTES_WORKSHOP.id));
  if (there) return;
  const today = now.toISOString().slice(0, 10);
  const [workshop] = await db
    .insert(workshops)
    .values({
      ...NOTES_WORKSHOP,
      locale: "en-US",
      currency: "USD",
      timeZone: process.env.HEARTH_ZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
      createdAt: now.toISOString(),
    })
    .returning();
  if (!workshop) throw new Error("The workshop was not written.");
  const input = notebookInput(demoId(0x40, 1), notebookGrid(BATCHES, today), today);
  const outcome = await inTransaction(db, (tx) => importNotesIn(tx, { workshop, person: null, now: now.toISOString() }, input));
  if (!outcome.ok) throw new Error(`The notebook of the demo is refused: ${outcome.message}`);
}
