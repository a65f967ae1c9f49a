import { scaleLinear } from "d3-scale";

/** One pot of a day. Minutes count from the beginning. */
export interface TimetableRow {
  key: string;
  /** What it is called by in short: its number. */
  number: number;
  name: string;
  steps: { id: string; name: string; start: number; end: number; hands: boolean; heats: boolean; held?: boolean }[];
}

/** Everything that the picture of a day's schedule shows. */
export interface Day {
  rows: readonly TimetableRow[];
  /** What is looked at, by the key of its row; the others step back. */
  lit: string | null;
  /** What hands do in the waits. */
  chores?: readonly { number: number; name: string; parts: { start: number; end: number }[] }[];
  /** When nobody works. */
  breaks?: readonly { from: number; minutes: number }[];
  /** What is taken when: a burner, a pitcher; each by the numbers of the pots that have it. */
  lanes?: readonly { name: string; taken: { number: number; start: number; end: number }[] }[];
  /** How warm each pot is, in °C. */
  heats?: readonly { key: string; number: number; points: { minute: number; celsius: number }[] }[];
}

/** A step on its way to another minute. */
export interface Moved {
  row: string;
  step: string;
  by: number;
}

/** Colors by the token they are; stripes tell the heat where colors are not told apart. */
export type Ink = "ink" | "soft" | "line" | "wax" | "sheet" | "action" | "hot" | "stripes";

/** What is drawn, in px from the left upper corner; `alpha` is 1 where it is not given. */
export type Shape = { alpha?: number } & (
  | { is: "box"; of: string; x: number; y: number; width: number; height: number; fill: Ink; edge?: Ink; thick?: number }
  | { is: "line"; points: readonly (readonly [number, number])[]; ink: Ink; thick: number; dashed?: boolean }
  | { is: "words"; x: number; y: number; says: string; size: number; ink: Ink; from: "start" | "middle" | "end"; bold?: boolean; figure?: boolean }
);

/** Where a step can be taken hold of. */
export interface Grip {
  row: string;
  step: string;
  start: number;
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Picture {
  width: number;
  height: number;
  shapes: Shape[];
  grips: Grip[];
  /** How many px a minute is wide. */
  perMinute: number;
}

const ROW = 40;
const LANE = 22;
const TOP = 26;
const LEFT = 150;
const HEATS = 150;
const RIGHT = 12;

/** Functions that write a moment and a temperature in the units of the workshop. */
export interface Writing {
  clock: (minutes: number) => string;
  t: (centi: number) => string;
}

/** The hours to write: whole ones, or parts where there is room for them. */
function hoursBetween(from: number, to: number, width: number): number[] {
  const step = [15, 30, 60, 120, 180, 360].find((value) => (value / (to - from)) * width >= 62) ?? 720;
  const first = Math.ceil(from / step);
  return Array.from({ length: Math.max(0, Math.floor(to / step) - first + 1) }, (_, index) => (first + index) * step);
}

/** A day while it is drawn: where a minute stands, how strong a pot is drawn, and the shapes so far. */
interface Drawing {
  day: Day;
  width: number;
  left: number;
  height: number;
  first: number;
  last: number;
  lanesAt: number;
  heatsAt: number;
  write: Writing;
  x: (minute: number) => number;
  wide: (from: number, to: number) => number;
  shapes: Shape[];
  grips: Grip[];
  /** Of another pot than the lit one less is seen. */
  faded: (number: number) => number;
  /** The number of a pot in the middle of a stretch, where there is room for it. */
  numbered: (n: number, from: number, to: number, y: number, size: number, ink: Ink, bold?: boolean) => void;
}

function drawingOf(day: Day, width: number, write: Writing): Drawing {
  const { rows, lit, chores = [], lanes = [], heats = [] } = day;
  const left = width < 620 ? 86 : LEFT;
  const first = Math.min(0, ...chores.flatMap((chore) => chore.parts.map((part) => part.start)));
  const last = Math.max(30, ...rows.flatMap((row) => row.steps.map((step) => step.end)));
  const x = scaleLinear([first, last], [left, width - RIGHT]);
  const wide = (from: number, to: number) => Math.max(2, x(to) - x(from) - 1);
  const shapes: Shape[] = [];
  const grips: Grip[] = [];
  const litNumber = rows.find((row) => row.key === lit)?.number;
  const faded = (number: number) => (lit !== null && litNumber !== number ? 0.3 : 1);
  const numbered = (n: number, from: number, to: number, y: number, size: number, ink: Ink, bold = false) => {
    if (x(to) - x(from) <= 9 + 8 * String(n).length) return;
    shapes.push({ is: "words", x: (x(from) + x(to)) / 2, y, says: String(n), size, ink, from: "middle", bold, figure: true, alpha: faded(n) });
  };

  const lanesAt = TOP + ROW * (1 + rows.length);
  const heatsAt = lanesAt + (lanes.length > 0 ? LANE * lanes.length + 14 : 0);
  const height = heatsAt + (heats.length > 0 ? HEATS : 0);
  return { day, width, left, height, first, last, lanesAt, heatsAt, write, x, wide, shapes, grips, faded, numbered };
}

/** The hours as lines through all of it, and when nobody works. */
function drawHours({ day: { breaks = [] }, width, left, height, first, last, lanesAt, write, x, wide, shapes }: Drawing): void {
  for (const item of breaks)
    shapes.push({
      is: "box",
      of: "break",
      x: x(item.from),
      y: TOP - 4,
      width: wide(item.from, item.from + item.minutes),
      height: lanesAt - TOP + 4,
      fill: "wax",
    });
  const upright = (minute: number) =>
    [
      [x(minute), TOP - 4],
      [x(minute), height - 6],
    ] as const;
  for (const minute of hoursBetween(first, last, width - left - RIGHT)) {
    shapes.push({ is: "line", points: upright(minute), ink: "line", thick: 1 });
    shapes.push({ is: "words", x: x(minute), y: TOP - 14, says: write.clock(minute), size: 13, ink: "soft", from: "middle", figure: true });
  }
  if (first < 0) shapes.push({ is: "line", points: upright(0), ink: "ink", thick: 1, dashed: true });
}

/** The hands of all pots in one line, in which nothing may lie on anything. */
function drawHands({ day: { rows, chores = [] }, x, wide, shapes, faded, numbered }: Drawing): void {
  const hands = TOP + ROW / 2;
  shapes.push({ is: "words", x: 0, y: hands, says: "labor", size: 14, ink: "ink", from: "start", bold: true });
  for (const chore of chores)
    for (const part of chore.parts)
      shapes.push({
        is: "box",
        of: "chore",
        x: x(part.start),
        y: hands - 8,
        width: wide(part.start, part.end),
        height: 16,
        fill: "sheet",
        edge: "ink",
        thick: 1.5,
        alpha: faded(chore.number),
      });
  for (const row of rows)
    for (const step of row.steps) {
      if (!step.hands || step.end <= step.start) continue;
      shapes.push({
        is: "box",
        of: "hands",
        x: x(step.start),
        y: hands - 12,
        width: wide(step.start, step.end),
        height: 24,
        fill: "ink",
        alpha: faded(row.number),
      });
      numbered(row.number, step.start, step.end, hands, 14, "sheet", true);
    }
}

/** A line for each pot with its steps, which can be taken hold of. */
function drawPots({ day: { rows }, left, write, x, wide, shapes, grips, faded }: Drawing, moved: Moved | null): void {
  const letters = Math.floor((left - 26) / 7.2);
  for (const [index, row] of rows.entries()) {
    const middle = TOP + ROW * (index + 1.5);
    const alpha = faded(row.number);
    const number = String(row.number);
    shapes.push({ is: "words", x: 0, y: middle, says: number, size: 14, ink: "ink", from: "start", bold: true, alpha });
    const short = row.name.length > letters ? `${row.name.slice(0, letters - 1)}…` : row.name;
    shapes.push({ is: "words", x: 5 + 8.5 * number.length, y: middle, says: short, size: 14, ink: "ink", from: "start", alpha });
    const [begins, ends] = [row.steps[0]?.start ?? 0, row.steps.at(-1)?.end ?? 0];
    shapes.push({
      is: "line",
      points: [
        [x(begins), middle],
        [x(ends), middle],
      ],
      ink: "ink",
      thick: 2,
      alpha,
    });
    for (const step of row.steps) {
      const by = moved?.row === row.key && moved.step === step.id ? moved.by : 0;
      const box = { x: x(step.start + by), y: middle - 10, width: wide(step.start, step.end), height: 20 };
      const look = step.heats ? (["stripes", "hot"] as const) : step.hands ? (["ink", "ink"] as const) : (["wax", "ink"] as const);
      shapes.push({ is: "box", of: step.heats ? "heat" : step.hands ? "by hand" : "alone", ...box, fill: look[0], edge: look[1], thick: 1.5, alpha });
      grips.push({ row: row.key, step: step.id, start: step.start, ...box });
      if (by !== 0) {
        const says = write.clock(Math.max(0, step.start + by));
        shapes.push({ is: "words", x: box.x, y: middle - 16, says, size: 14, ink: "ink", from: "start", bold: true, figure: true });
      } else if (step.held) {
        shapes.push({ is: "words", x: box.x, y: middle - 14, says: "▼", size: 11, ink: "action", from: "middle", alpha });
      }
    }
  }
}

/** Who has which burner and pitcher. */
function drawLanes({ day: { lanes = [] }, lanesAt, x, wide, shapes, faded, numbered }: Drawing): void {
  for (const [index, lane] of lanes.entries()) {
    const middle = lanesAt + 6 + LANE * (index + 0.5);
    shapes.push({ is: "words", x: 0, y: middle, says: lane.name, size: 13, ink: "soft", from: "start" });
    for (const item of lane.taken) {
      const box = { x: x(item.start), y: middle - 8, width: wide(item.start, item.end), height: 16 };
      shapes.push({ is: "box", of: "lane", ...box, fill: "wax", edge: "ink", thick: 1, alpha: faded(item.number) });
      numbered(item.number, item.start, item.end, middle, 13, "ink");
    }
  }
}

/** How warm every pot is. */
function drawHeats({ day: { heats = [], lit }, width, left, heatsAt, write, x, shapes, faded }: Drawing): void {
  const warmest = Math.max(60, ...heats.flatMap((heat) => heat.points.map((point) => point.celsius)));
  const warm = scaleLinear([15, warmest + 6], [heatsAt + HEATS - 8, heatsAt + 14]);
  if (heats.length > 0)
    for (const celsius of [20, 40, 60, 80, 100].filter((value) => value < warmest + 6)) {
      const y = warm(celsius);
      shapes.push({
        is: "line",
        points: [
          [left, y],
          [width - RIGHT, y],
        ],
        ink: "line",
        thick: 1,
      });
      shapes.push({ is: "words", x: left - 6, y, says: write.t(celsius * 100), size: 13, ink: "soft", from: "end", figure: true });
    }
  for (const heat of heats) {
    const points = heat.points.map((point) => [x(point.minute), warm(point.celsius)] as const);
    const top = points.reduce<readonly [number, number] | undefined>((best, point) => (best === undefined || point[1] < best[1] ? point : best), undefined);
    shapes.push({ is: "line", points, ink: "ink", thick: lit === heat.key ? 3.5 : 2, alpha: faded(heat.number) });
    if (top) {
      const says = String(heat.number);
      shapes.push({ is: "words", x: top[0], y: top[1] - 9, says, size: 13, ink: "ink", from: "end", bold: true, figure: true, alpha: faded(heat.number) });
    }
  }
}

/**
 * Returns a day as it is drawn in a width of so many px: the people of all pots in one line, in which nothing may lie on anything; a line for
 * each pot; who has which burner and pitcher; and how warm every pot is, all on one clock.
 */
export function pictureOf(day: Day, width: number, write: Writing, moved: Moved | null = null): Picture {
  const drawing = drawingOf(day, width, write);
  drawHours(drawing);
  drawHands(drawing);
  drawPots(drawing, moved);
  drawLanes(drawing);
  drawHeats(drawing);
  const { left, height, first, last, shapes, grips } = drawing;
  return { width, height, shapes, grips, perMinute: (width - RIGHT - left) / (last - first) };
}

/** Returns what can be taken hold of at a place: the last drawn lies on top. */
export const gripAt = (picture: Picture, x: number, y: number): Grip | null =>
  picture.grips.findLast((grip) => x >= grip.x && x <= grip.x + grip.width && y >= grip.y - 4 && y <= grip.y + grip.height + 4) ?? null;
