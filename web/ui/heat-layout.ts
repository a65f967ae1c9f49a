import type { Band, ForecastView, Foreseen, TemperatureRange } from "@hearth/core";
import { scaleLinear } from "d3-scale";
import { type Box, foldedTime, placed, spread } from "./heat-scale";
import { toneOf } from "./tone";
import type { Formats } from "./units";

export interface HeatMark {
  at: string;
  celsius: number;
  /** The step whose range it was compared with. */
  step: string | null;
  /** The instrument's kind gives the mark its shape; a line joins only readings of one instrument. */
  instrumentId: string | null;
  instrumentKind: string | null;
}

/** When a pot comes into a range and out of it. */
export type Ahead = Pick<ForecastView, "is" | "range" | "enters" | "leaves">;

export interface HeatLineInput {
  bands: Band[];
  ceiling: number;
  marks: HeatMark[];
  /** Moments on the time axis: stirred, poured. */
  moments?: { at: string; name: string }[];
  /** Drawn as a hairline where the pot still runs. */
  now?: string | null;
  /** What is forecast: drawn on from the newest reading, with how sure it is. */
  ahead?: Ahead | null;
  height?: number;
  thumb?: boolean;
}

/** About how wide figures of 15 px and words of 13 px are, in px a letter. */
const FIGURE = 8;
const WORD = 7.2;
/** One line of the words at the edges, in px. */
export const LINE = 16;

/** Returns where the names of moments stand below the picture, in rows: the later one takes the upper row, so that no line crosses a name. */
function inRows(moments: { at: string; name: string }[], x: (at: number) => number, right: number) {
  const starts: number[] = [];
  return [...moments]
    .sort((a, b) => Date.parse(b.at) - Date.parse(a.at))
    .map((moment) => {
      const width = moment.name.length * WORD + 8;
      const at = x(Date.parse(moment.at));
      const from = Math.min(at + 4, right - width);
      const free = starts.findIndex((start) => from + width <= start);
      const row = free < 0 ? starts.length : free;
      starts[row] = from;
      return { ...moment, x: at, from, row };
    });
}

/** Returns names in lines of at most a given number of letters. */
function inLines(names: string[], most: number): string[] {
  const lines: string[] = [];
  for (const name of names) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + name.length + 2 <= most) lines[lines.length - 1] = `${last}, ${name}`;
    else lines.push(name.length > most ? `${name.slice(0, most - 1)}…` : name);
  }
  return lines;
}

/** What is further ahead is not drawn. */
const FORESIGHT_MS = 4 * 3_600_000;
/** Moments from one to another, as ISO text, an hour apart. */
function upTo(from: string, to: string): string[] {
  const [begin, end] = [Date.parse(from), Math.min(Date.parse(to), Date.parse(from) + 2 * FORESIGHT_MS)];
  const out: string[] = [];
  for (let at = begin; at < end; at += 3_600_000) out.push(new Date(at).toISOString());
  return [...out, new Date(end).toISOString()];
}

/** Returns what is forecast soon, each with the temperature that it is of, and the hours up to there. */
function foresightOf({ ahead, now }: HeatLineInput, newest: HeatMark | undefined): { foreseen: (Foreseen & { celsius: number })[]; way: string[] } {
  if (!ahead || !newest || !now) return { foreseen: [], way: [] };
  const [first, second] = ahead.is === "heating" ? (["low", "high"] as const) : (["high", "low"] as const);
  const foreseen = [
    ...(ahead.enters ? [{ ...ahead.enters, celsius: ahead.range[first] }] : []),
    ...(ahead.leaves ? [{ ...ahead.leaves, celsius: ahead.range[second] }] : []),
  ].filter((item) => Date.parse(item.at) - Date.parse(now) < FORESIGHT_MS);
  return { foreseen, way: foreseen.length > 0 ? upTo(newest.at, (foreseen.at(-1) as Foreseen).high) : [] };
}

/** Returns readings in runs of one instrument each. */
function runsOf(sorted: readonly HeatMark[]): HeatMark[][] {
  const runs: HeatMark[][] = [];
  for (const mark of sorted) {
    const run = runs.at(-1);
    if (run && run[0]?.instrumentId === mark.instrumentId) run.push(mark);
    else runs.push([mark]);
  }
  return runs;
}

/** Returns the ranges as bands, those of one range together under their names. */
function bandsAt(ranges: readonly Band[]): { range: TemperatureRange; names: string[] }[] {
  const bands = new Map<string, { range: TemperatureRange; names: string[] }>();
  for (const { name, range } of ranges) {
    const key = `${range.low}:${range.high}`;
    bands.set(key, { range, names: [...new Set([...(bands.get(key)?.names ?? []), name])] });
  }
  return [...bands.values()];
}

/** A tenth of a pixel is as exact as a reading is drawn. */
const toTenth = (px: number) => Math.round(px * 10) / 10;

/** Returns where everything of a heat line stands, in px: scales, bands, readings with their figures, moments, and what is forecast. */
export function layHeatLine(input: HeatLineInput, width: number, units: Pick<Formats, "temperature" | "tParts" | "t" | "range">) {
  const { bands: ranges, ceiling, marks, moments = [], now = null, height = 280, thumb = false } = input;
  const side = thumb ? { left: 3, right: 3 } : { left: 46, right: 104 };
  const sorted = [...marks].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const { foreseen, way } = foresightOf(input, sorted.at(-1));
  // Between what was read and what is forecast nothing is folded away.
  const times = [...way, ...sorted.map((mark) => mark.at), ...moments.map((moment) => moment.at), ...(now ? [now] : [])].map((at) => Date.parse(at));
  const time = foldedTime(times, [side.left, width - side.right]);
  const x = (at: string) => time.x(Date.parse(at));
  const named = thumb ? moments.map((moment) => ({ ...moment, x: x(moment.at), from: 0, row: 0 })) : inRows(moments, time.x, width - 4);
  const rows = thumb ? 0 : Math.max(0, ...named.map((moment) => moment.row + 1));
  const edge = { ...side, top: thumb ? 3 : 14, bottom: thumb ? 3 : times.length === 0 ? 10 : 30 + rows * LINE };
  const foot = height - edge.bottom;
  const warmest = Math.max(...sorted.map((mark) => mark.celsius), ...ranges.map((range) => range.range.high));
  const coolest = Math.min(...sorted.map((mark) => mark.celsius), ...ranges.map((range) => range.range.low));
  const top = warmest > ceiling - 800 ? Math.max(warmest, ceiling) : warmest;
  const isScorchShown = top >= ceiling;
  const y = scaleLinear([coolest - 500, top + 400], [foot, edge.top]);
  const bands = bandsAt(ranges);
  // What stands at the right edge keeps its distance from what stands next to it.
  const letters = Math.floor((side.right - 8) / WORD);
  const beside = [
    ...bands.map(({ range, names }) => ({
      at: (y(range.low) + y(range.high)) / 2,
      lines: inLines(names, letters),
      range: units.range(range),
      isScorch: false,
    })),
    ...(isScorchShown ? [{ at: y(ceiling), lines: ["scorch"], range: units.t(ceiling), isScorch: true }] : []),
  ].map((item) => ({ ...item, size: (item.lines.length + 1) * LINE }));
  const middles = spread(beside, [0, foot + 6]);
  const rangeOf = (step: string | null) => ranges.find((range) => range.step === step)?.range ?? null;
  const radius = thumb || sorted.length > 60 ? 3 : 7;
  const readings = sorted.map((mark) => ({ mark, x: toTenth(x(mark.at)), y: toTenth(y(mark.celsius)), tone: toneOf(mark.celsius, rangeOf(mark.step)) }));
  return {
    ...{ width, height, edge, foot, time, x, y, bands, sorted, named, foreseen, readings, radius, isScorchShown },
    atDegrees: scaleLinear(
      y.domain().map((centi) => (units.temperature === "C" ? centi / 100 : (centi / 100) * 1.8 + 32)),
      y.range(),
    ),
    beside: beside.map((item, index) => ({ ...item, middle: middles[index] as number })),
    runs: runsOf(sorted),
    figures: thumb ? [] : figuresOf(readings, { left: side.left, right: width - side.right, foot, radius }, units),
  };
}
export type HeatLayout = ReturnType<typeof layHeatLine>;

/** Figures stand above their mark, or where there is room; the newest comes first, and is told even where it is crowded. */
function figuresOf(
  readings: readonly { mark: HeatMark; x: number; y: number; tone: string }[],
  { left, right, foot, radius }: { left: number; right: number; foot: number; radius: number },
  units: Pick<Formats, "tParts">,
) {
  const wanted = [...readings].reverse().map(({ mark, x, y, tone }) => {
    const text = `${tone === "hot" ? "▲ " : tone === "cool" ? "▼ " : ""}${units.tParts(mark.celsius).figure}`;
    const size = { width: text.length * FIGURE + 2, height: 15 };
    const from = Math.max(left, Math.min(x - size.width / 2, right - size.width));
    const options = [y - 25, y + 11].filter((at) => at >= 0 && at + size.height <= foot).map((at) => ({ ...size, x: from, y: at }));
    return { mark, tone, text, options };
  });
  const half = radius * 1.3;
  const taken = readings.map((reading): Box => ({ x: reading.x - half, y: reading.y - half, width: 2 * half, height: 2 * half }));
  const places = placed(
    wanted.map((item) => item.options),
    taken,
  );
  return wanted.flatMap(({ mark, tone, text, options }, index) => {
    const place = places[index] ?? (index === 0 ? options[0] : null);
    return place ? [{ mark, tone, text, x: place.x + place.width / 2, y: place.y + 12 }] : [];
  });
}
