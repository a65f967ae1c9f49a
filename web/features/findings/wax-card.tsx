"use client";

import { countOf, shareDifference, THROW_COLUMNS } from "@hearth/core";
import type { WaxScore } from "@/server/findings/scoreboard";
import { Picture } from "@/ui/picture";
import { type Formats, useUnits } from "@/ui/units";
import { type ComparedWaxes, type ShownFigure, shownScore, shownShare, shownTemperature } from "./scoreboard-model";

/** The card in pixels: three columns of figures beside their names. */
const WIDTH = 760;
const COLUMNS = [16, 226, 406, 586] as const;
const ROW = 46;
const HEAD = 92;

interface CardRow {
  words: string;
  a: ShownFigure | null;
  b: ShownFigure | null;
  /** What can be said of the difference. */
  says: string;
}

const NOTHING: ShownFigure = { figure: "–", below: "" };
const isTold = (difference: { low: number; high: number }) => difference.low > 0 || difference.high < 0;

/** Returns what stands on the card: one row for each figure, and which of the two is ahead where that is more than chance. */
export function cardRows(units: Formats, a: WaxScore, b: WaxScore, differences: ComparedWaxes["differences"]): CardRow[] {
  const shares = (words: string, key: "smoothTops" | "noWetSpots"): CardRow => {
    const [x, y] = [a[key], b[key]];
    const difference = x && y ? shareDifference(x, y) : null;
    const ahead = difference && isTold(difference) ? (difference.by > 0 ? b.wax : a.wax) : null;
    return {
      words,
      a: shownShare(units, x),
      b: shownShare(units, y),
      says: !difference ? "" : ahead ? `${ahead}, by ${units.n(Math.abs(difference.by) * 100, 0)} points` : "too close to tell",
    };
  };
  const throws = THROW_COLUMNS.map(({ key, words }): CardRow => {
    const [x, y] = [a.throws[key], b.throws[key]];
    const difference = x && y ? differences[key] : null;
    const ahead = difference && isTold(difference) ? (difference.by > 0 ? b.wax : a.wax) : null;
    return {
      words,
      a: shownScore(units, x),
      b: shownScore(units, y),
      says: !x || !y ? "" : ahead && difference ? `${ahead}, by ${units.n(Math.abs(difference.by), 1)}` : "too close to tell",
    };
  });
  const plain = (words: string, of: (line: WaxScore) => ShownFigure | null): CardRow => ({ words, a: of(a), b: of(b), says: "" });
  return [
    plain("batches", (line) => ({
      figure: String(line.batches),
      below: line.fromNotes > 0 ? `${line.fromNotes} from notes` : countOf(line.jars, "jar", "jars"),
    })),
    plain("poured at", (line) => shownTemperature(units, line.pour)),
    plain("fragrance added at", (line) => shownTemperature(units, line.add)),
    shares("smooth tops", "smoothTops"),
    shares("no wet spots", "noWetSpots"),
    ...throws,
    plain("wick that passed", (line) =>
      line.passedWicks[0] ? { figure: line.passedWicks[0].wick, below: countOf(line.passedWicks[0].tests, "test", "tests") } : null,
    ),
    plain("cost of the wax", (line) => (line.costPerKg === null ? null : { figure: units.costPerBulk(line.costPerKg), below: "" })),
  ].filter((row) => row.a || row.b);
}

/** A text that does not run out of its column. */
const short = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** Two waxes on one card, to print or to keep as a picture. */
export function WaxCard({ a, b, differences }: { a: WaxScore; b: WaxScore; differences: ComparedWaxes["differences"] }) {
  const units = useUnits();
  const rows = cardRows(units, a, b, differences);
  const height = HEAD + rows.length * ROW + 12;
  const cellOf = (row: CardRow, side: "a" | "b", x: number, y: number) => {
    const shown = row[side] ?? NOTHING;
    return (
      <>
        <text x={x} y={y + 20} fontSize="19" fontWeight="700" fill="var(--color-ink)">
          {short(shown.figure, 17)}
        </text>
        <text x={x} y={y + 36} fontSize="11" fill="var(--color-soft)">
          {short(shown.below, 31)}
        </text>
      </>
    );
  };
  return (
    <section className="mt-4 max-w-[760px]" aria-label={`${a.wax} against ${b.wax}`}>
      <Picture
        name={`${a.wax} against ${b.wax}`}
        heads={["figure", a.wax, "", b.wax, "", "which is ahead"]}
        rows={rows.map((row) => [row.words, row.a?.figure ?? "", row.a?.below ?? "", row.b?.figure ?? "", row.b?.below ?? "", row.says])}
      >
        <svg
          viewBox={`0 0 ${WIDTH} ${height}`}
          width="100%"
          role="img"
          aria-label={`${a.wax} against ${b.wax}: ${rows.map((row) => `${row.words} ${row.a?.figure ?? "not known"} and ${row.b?.figure ?? "not known"}${row.says ? `, ${row.says}` : ""}`).join("; ")}`}
        >
          <rect x="1" y="1" width={WIDTH - 2} height={height - 2} fill="var(--color-sheet)" stroke="var(--color-ink)" strokeWidth="2" />
          <text x={COLUMNS[0]} y="34" fontSize="22" fontWeight="700" fill="var(--color-ink)">
            {short(`${a.wax} against ${b.wax}`, 62)}
          </text>
          {[a.wax, b.wax, "which is ahead"].map((text, index) => (
            <text key={index === 2 ? "ahead" : `${index} ${text}`} x={COLUMNS[index + 1]} y="74" fontSize="14" fill="var(--color-soft)">
              {short(text, 25)}
            </text>
          ))}
          {rows.map((row, index) => {
            const y = HEAD + index * ROW;
            return (
              <g key={row.words}>
                <line x1="0" x2={WIDTH} y1={y - 4} y2={y - 4} stroke="var(--color-line)" />
                <text x={COLUMNS[0]} y={y + 22} fontSize="15" fill="var(--color-ink)">
                  {row.words}
                </text>
                {cellOf(row, "a", COLUMNS[1], y)}
                {cellOf(row, "b", COLUMNS[2], y)}
                {row.says.split(", by ").map((text, line) => (
                  <text
                    key={text}
                    x={COLUMNS[3]}
                    y={y + 20 + line * 16}
                    fontSize={line === 0 ? 14 : 11}
                    fill={line === 0 ? "var(--color-ink)" : "var(--color-soft)"}
                  >
                    {short(line === 0 ? text : `by ${text}`, 22)}
                  </text>
                ))}
              </g>
            );
          })}
        </svg>
      </Picture>
      <button type="button" className="press unprinted mt-2" onClick={() => print()}>
        Print card
      </button>
    </section>
  );
}
