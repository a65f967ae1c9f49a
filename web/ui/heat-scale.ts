import { extent } from "d3-array";
import { scaleLinear } from "d3-scale";
import { utcTicks } from "d3-time";

/** A time without readings or steps, in ms, that is drawn as a break of fixed width. */
export interface Gap {
  from: number;
  to: number;
}

/** Longer than this, nothing having happened, is drawn as a break. */
const LONGEST_MS = 2 * 3_600_000;
/** So much of it stays in sight at both ends, so that what stands there is not crowded. */
const SHOULDER_MS = 600_000;
/** A break is so wide, where there is room: all of them together take at most half of the picture. */
const BREAK_PX = 44;

/** Time across, with long times in which nothing happened folded to a narrow break. Times in ms, in any order; the span in px. */
export function foldedTime(times: readonly number[], [left, right]: readonly [number, number]) {
  const sorted = [...times].sort((a, b) => a - b);
  const first = sorted[0] ?? 0;
  const last = Math.max(sorted.at(-1) ?? 3_600_000, first + 900_000);
  const gaps: Gap[] = sorted.flatMap((at, index) => {
    const before = sorted[index - 1];
    return before !== undefined && at - before > LONGEST_MS ? [{ from: before + SHOULDER_MS, to: at - SHOULDER_MS }] : [];
  });
  const folded = gaps.reduce((sum, gap) => sum + gap.to - gap.from, 0);
  const room = (last - first - folded) * 0.06;
  const begin = first - room;
  const breakPx = Math.min(BREAK_PX, (right - left) / 2 / Math.max(1, gaps.length));
  const perMs = (right - left - gaps.length * breakPx) / (last + room - begin - folded);
  const domain = [begin];
  const range = [left];
  for (const gap of gaps) {
    const at = (range.at(-1) as number) + (gap.from - (domain.at(-1) as number)) * perMs;
    domain.push(gap.from, gap.to);
    range.push(at, at + breakPx);
  }
  const x = scaleLinear([...domain, last + room], [...range, right]);
  return { x, gaps };
}

/** Returns the hours to write below a folded time: none in a break, none closer to another than `apart` px, the clear ones first. */
export function hoursOf({ x, gaps }: ReturnType<typeof foldedTime>, apart: number): Date[] {
  const [from = 0, to = 0] = extent(x.domain());
  const width = x(to) - x(from);
  // Each stretch between two breaks has as many as find room in it, on its own round hours and minutes.
  const edges = [from, ...gaps.flatMap((gap) => [gap.from, gap.to]), to];
  const out: Date[] = [];
  for (let i = 0; i < edges.length; i += 2) {
    const [begin, end] = [edges[i] as number, edges[i + 1] as number];
    const stretch = x(end) - x(begin);
    const many = Math.max(1, Math.floor(stretch / Math.max(apart, width / 12)));
    for (const at of utcTicks(new Date(begin), new Date(end), many)) {
      if (at.getTime() < begin || at.getTime() > end) continue;
      const before = out.at(-1);
      if (!before || x(at) - x(before) >= apart) out.push(at);
    }
  }
  return out;
}

/** Moves places along a line apart, as little as it takes and in their order, so that each has its size to itself and none leaves the span. */
export function spread(places: readonly { at: number; size: number }[], [low, high]: readonly [number, number]): number[] {
  const order = places.map((_, index) => index).sort((a, b) => (places[a]?.at ?? 0) - (places[b]?.at ?? 0));
  const out = places.map((place) => place.at);
  let free = low;
  for (const index of order) {
    const { size } = places[index] as { size: number };
    out[index] = Math.max(out[index] as number, free + size / 2);
    free = (out[index] as number) + size / 2;
  }
  free = high;
  for (const index of order.reverse()) {
    const { size } = places[index] as { size: number };
    out[index] = Math.min(out[index] as number, free - size / 2);
    free = (out[index] as number) - size / 2;
  }
  return out;
}

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}
const meet = (a: Box, b: Box): boolean => a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** For each, the first of its possible places that meets nothing placed before; null if none is free. */
export function placed(wanted: readonly (readonly Box[])[], taken: readonly Box[]): (Box | null)[] {
  const full = [...taken];
  return wanted.map((options) => {
    const free = options.find((box) => !full.some((other) => meet(box, other))) ?? null;
    if (free) full.push(free);
    return free;
  });
}
