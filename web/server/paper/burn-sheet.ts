import {
  isLocale,
  LOCALE_FORMATS,
  localize,
  type MassUnit,
  NO_CERTIFICATE,
  type TrialPlan,
  type TrialState,
  tagOf,
  variantWords,
  writeDay,
} from "@hearth/core";
import { MARGIN, MM, Paper, type PaperSize } from "./paper";

/** The burn sheet of a trial: all that its drawing needs. */
export interface BurnSheet {
  number: number;
  plan: TrialPlan;
  state: TrialState;
  /** ISO day on which it was begun. */
  day: string;
  /** The page that the code on it opens. */
  address: string;
}
interface Units {
  locale: string;
  massUnit: MassUnit;
  lengthUnit: "mm" | "in";
  temperatureUnit: "C" | "F";
}

const ROW = 17;
const HEAD = 26;
/** The empty columns of a check, with their widths in points; the last takes what is left. */
const columnsOf = (plan: TrialPlan, units: Units): { name: string; width: number }[] => [
  { name: "check", width: 44 },
  { name: "time", width: 40 },
  { name: `pool, ${units.lengthUnit}`, width: 46 },
  { name: `deep, ${units.lengthUnit}`, width: 42 },
  { name: "flame", width: 44 },
  { name: "mushroom", width: 50 },
  { name: "soot", width: 40 },
  { name: `wall, °${units.temperatureUnit}`, width: 42 },
  ...(plan.ownMarks ?? []).slice(0, 3).map((mark) => ({ name: `${mark}, of 10`, width: 46 })),
  { name: "note", width: 0 },
];

/** Minutes after lighting as a clock would say them: 75 is "1:15". */
const clockOf = (minutes: number): string => `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;

/**
 * Returns a PDF for a clipboard: for each test candle what is known of it, and for each session that is still to be burned a row for each check, empty, with
 * columns for what is looked at. Sessions that were burned already are left out.
 */
export function burnSheetPdf({ number, plan, state, day, address }: BurnSheet, size: PaperSize, units: Units): Promise<Uint8Array> {
  const paper = new Paper(size, `Burn sheet of trial ${number}`);
  const manner = LOCALE_FORMATS[isLocale(units.locale) ? units.locale : "en-GB"];
  const right = paper.width - MARGIN;
  const inner = right - MARGIN;
  const bottom = paper.height - MARGIN - 14;
  const columns = columnsOf(plan, units);
  const fixed = columns.reduce((sum, column) => sum + column.width, 0);
  let y = 0;
  let pages = 0;
  const newPage = () => {
    paper.page();
    pages += 1;
    paper.text(`Trial ${number}, ${plan.name}, page ${pages}`, MARGIN, paper.height - MARGIN - 4, { size: 8, gray: true });
    y = MARGIN;
  };
  const room = (height: number) => {
    if (y + height > bottom) newPage();
  };
  newPage();
  const code = 24 * MM;
  paper.code(address, right - code, MARGIN - 8, code);
  y = paper.text(`Trial ${number}: ${plan.name}`, MARGIN, y, { size: 18, bold: true, width: inner - code - 12, most: 2 });
  y = paper.text(`Begun ${writeDay(day, manner.date)}, ${plan.protocol.name}, rest ${plan.protocol.restHours} h between sessions`, MARGIN, y + 2, { size: 10 });
  y = paper.text(NO_CERTIFICATE, MARGIN, y + 2, { size: 8, gray: true, width: inner - code - 12 });
  y = Math.max(y, MARGIN + code) + 8;
  for (const candle of plan.testCandles) {
    const burned = state.testCandles[candle.key];
    if (burned?.stopped) continue;
    const done = burned?.sessions.length ?? 0;
    const sessions = plan.protocol.sessions.slice(done);
    room(60 + HEAD);
    paper.line(MARGIN, y, right, y, 1.6);
    y = paper.text(`${candle.key}  ${localize(variantWords(plan, candle.variant), manner)}`, MARGIN, y + 5, { size: 15, bold: true, width: inner });
    const known = [...tagOf(candle).map((tag) => `${tag.what}: ${tag.says}`), candle.vessel, candle.batch ? `batch ${candle.batch.number}` : ""].filter(
      Boolean,
    );
    y = paper.text(localize(known.join(" · "), manner), MARGIN, y + 1, { size: 9, width: inner }) + 4;
    for (const [index, session] of (sessions.length > 0 ? sessions : plan.protocol.sessions.slice(-1)).entries()) {
      const checks = session.checks.length > 0 ? session.checks : [session.minutes];
      room(18 + HEAD + checks.length * ROW);
      y = paper.text(
        `Session ${done + index + 1}: lit at ________  wick trimmed to ______  weighs before ________ after ________ ${units.massUnit}  out at ________`,
        MARGIN,
        y + 3,
        { size: 9, width: inner },
      );
      let x = MARGIN;
      for (const column of columns) {
        paper.text(column.name, x + 2, y + 3, { size: 7, gray: true, width: (column.width || inner - fixed) - 4, most: 2 });
        x += column.width || inner - fixed;
      }
      y += HEAD - 6;
      for (const minutes of checks) {
        let left = MARGIN;
        for (const column of columns) {
          const width = column.width || inner - fixed;
          paper.box(left, y, width, ROW, 0.5);
          if (column.name === "check") paper.text(clockOf(minutes), left + 4, y + 4, { size: 10, bold: true });
          left += width;
        }
        y += ROW;
      }
      y += 6;
    }
  }
  return paper.end();
}
