"use client";

import { type Band, type Foreseen, type Outlook, standing, type TemperatureRange, writeDuration } from "@hearth/core";
import { ticks } from "d3-array";
import { across } from "./across";
import { type Box, foldedTime, hoursOf, placed, spread } from "./heat-scale";
import { useWidth } from "./size";
import { through } from "./through";
import { useUnits } from "./units";

export interface HeatMark {
  at: string;
  celsius: number;
  /** The act whose range it was held against. */
  act: string | null;
  /** The instrument's kind gives the mark its shape; a line joins only readings of one instrument. */
  instrumentId: string | null;
  instrumentKind: string | null;
}

/** When a pot comes into a range and out of it. */
type Ahead = Pick<Outlook, "is" | "range" | "enters" | "leaves">;

interface HeatLineProps {
  bands: Band[];
  ceiling: number;
  marks: HeatMark[];
  /** Moments on the time axis: stirred, poured. */
  moments?: { at: string; name: string }[];
  /** Drawn as a hairline where the pot still runs. */
  now?: string | null;
  /** What is foreseen: drawn on from the newest reading, with how sure it is. */
  ahead?: Ahead | null;
  height?: number;
  thumb?: boolean;
  label: string;
}

/** A reading's mark: round for a probe, square on its point for infrared, upright bar for glass; hollow where unknown. */
export function Mark({ kind, x, y, r, tone }: { kind: string | null; x: number; y: number; r: number; tone: string }) {
  const paint = { fill: kind ? `var(--color-${tone})` : "var(--color-sheet)", stroke: "var(--color-sheet)", strokeWidth: 2 };
  if (kind === "infrared") return <rect x={x - r} y={y - r} width={2 * r} height={2 * r} transform={`rotate(45 ${x} ${y})`} {...paint} />;
  if (kind === "glass") return <rect x={x - r * 0.55} y={y - r * 1.3} width={r * 1.1} height={r * 2.6} {...paint} />;
  return <circle cx={x} cy={y} r={r} {...paint} stroke={kind ? "var(--color-sheet)" : `var(--color-${tone})`} />;
}

export const toneOf = (celsius: number, range: TemperatureRange | null): "ink" | "inside" | "hot" | "cool" => {
  if (!range) return "ink";
  const at = standing(celsius, range);
  return at.is === "inside" ? "inside" : at.is === "above" ? "hot" : "cool";
};

/** About how wide figures of 15 px and words of 13 px are, in px a letter. */
const FIGURE = 8;
const WORD = 7.2;
/** One line of the words at the edges, in px. */
const LINE = 16;

/** Where the names of moments stand below the picture, in rows: the later one takes the upper row, so that no line crosses a name. */
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

/** Names in lines of at most so many letters. */
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

/** Time across, temperature up; the ranges as bands, readings as marks shaped by instrument. */
export function HeatLine({ bands: ranges, ceiling, marks, moments = [], now = null, ahead = null, height = 280, thumb = false, label }: HeatLineProps) {
  const units = useUnits();
  const { ref, width } = useWidth<HTMLDivElement>(thumb ? 132 : 640);
  const side = thumb ? { left: 3, right: 3 } : { left: 46, right: 104 };
  const sorted = [...marks].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const newest = sorted.at(-1);
  const [first, second] = ahead?.is === "heating" ? (["low", "high"] as const) : (["high", "low"] as const);
  const foreseen =
    ahead && newest && now
      ? [
          ...(ahead.enters ? [{ ...ahead.enters, celsius: ahead.range[first] }] : []),
          ...(ahead.leaves ? [{ ...ahead.leaves, celsius: ahead.range[second] }] : []),
        ].filter((one) => Date.parse(one.at) - Date.parse(now) < FORESIGHT_MS)
      : [];
  // Between what was read and what is foreseen nothing is folded away.
  const way = foreseen.length > 0 && newest ? upTo(newest.at, (foreseen.at(-1) as Foreseen).high) : [];
  const times = [...way, ...sorted.map((mark) => mark.at), ...moments.map((moment) => moment.at), ...(now ? [now] : [])].map((at) => Date.parse(at));
  const time = foldedTime(times, [side.left, width - side.right]);
  const { x } = time;
  const named = thumb ? moments.map((moment) => ({ ...moment, x: x(Date.parse(moment.at)), from: 0, row: 0 })) : inRows(moments, x, width - 4);
  const rows = thumb ? 0 : Math.max(0, ...named.map((moment) => moment.row + 1));
  const edge = { ...side, top: thumb ? 3 : 14, bottom: thumb ? 3 : times.length === 0 ? 10 : 30 + rows * LINE };
  const foot = height - edge.bottom;
  const warmest = Math.max(...sorted.map((mark) => mark.celsius), ...ranges.map((one) => one.range.high));
  const coolest = Math.min(...sorted.map((mark) => mark.celsius), ...ranges.map((one) => one.range.low));
  const top = warmest > ceiling - 800 ? Math.max(warmest, ceiling) : warmest;
  const y = across([coolest - 500, top + 400], [foot, edge.top]);

  const bands = new Map<string, { range: TemperatureRange; names: string[] }>();
  for (const { name, range } of ranges) {
    const key = `${range.low}:${range.high}`;
    bands.set(key, { range, names: [...new Set([...(bands.get(key)?.names ?? []), name])] });
  }
  const rangeOf = (act: string | null) => ranges.find((one) => one.act === act)?.range ?? null;
  const nameOf = (act: string | null) => ranges.find((one) => one.act === act)?.name ?? "a look";
  const runs: HeatMark[][] = [];
  for (const mark of sorted) {
    const run = runs.at(-1);
    if (run && run[0]?.instrumentId === mark.instrumentId) run.push(mark);
    else runs.push([mark]);
  }
  const path = (run: readonly HeatMark[]) => through(run.map((mark) => [x(Date.parse(mark.at)), y(mark.celsius)]));
  const [low, high] = y.ends.map((centi) => (units.temperature === "C" ? centi / 100 : (centi / 100) * 1.8 + 32)) as [number, number];
  const atDegrees = across([low, high], [foot, edge.top]);
  // What stands at the right edge keeps its distance from what stands next to it.
  const letters = Math.floor((side.right - 8) / WORD);
  const beside = [
    ...[...bands.values()].map(({ range, names }) => ({ at: (y(range.low) + y(range.high)) / 2, lines: inLines(names, letters), range: units.range(range) })),
    ...(top >= ceiling ? [{ at: y(ceiling), lines: ["scorch"], range: units.t(ceiling) }] : []),
  ].map((one) => ({ ...one, size: (one.lines.length + 1) * LINE }));
  const middles = spread(beside, [0, foot + 6]);
  const radius = thumb || sorted.length > 60 ? 3 : 7;
  // Figures stand above their mark, or where there is room; the newest comes first.
  const figures = thumb
    ? []
    : [...sorted].reverse().map((mark) => {
        const tone = toneOf(mark.celsius, rangeOf(mark.act));
        const text = `${tone === "hot" ? "▲ " : tone === "cool" ? "▼ " : ""}${units.tParts(mark.celsius).figure}`;
        const size = { width: text.length * FIGURE + 2, height: 15 };
        const from = Math.max(side.left, Math.min(x(Date.parse(mark.at)) - size.width / 2, width - side.right - size.width));
        const middle = y(mark.celsius);
        return {
          mark,
          tone,
          text,
          options: [middle - 25, middle + 11].filter((at) => at >= 0 && at + size.height <= foot).map((at) => ({ ...size, x: from, y: at })),
        };
      });
  const boxOf = (mark: HeatMark): Box => {
    const half = radius * 1.3;
    return { x: x(Date.parse(mark.at)) - half, y: y(mark.celsius) - half, width: 2 * half, height: 2 * half };
  };
  const places = placed(
    figures.map((one) => one.options),
    sorted.map(boxOf),
  );
  const said = sorted.map((mark) => `${units.clock(mark.at)} ${units.t(mark.celsius)} for ${nameOf(mark.act)}`).join("; ");

  return (
    <div ref={ref} className={thumb ? "w-[132px]" : "w-full min-w-0 overflow-hidden"}>
      <svg width={width} height={height} role="img" aria-label={`${label}. ${said || "No readings yet."}`} className="block bg-sheet">
        {[...bands.values()].map(({ range, names }) => (
          <g key={names.join()}>
            <rect
              x={edge.left}
              width={Math.max(0, width - edge.left - edge.right)}
              y={y(range.high)}
              height={Math.max(2, y(range.low) - y(range.high))}
              fill="var(--color-inside-fill)"
            />
          </g>
        ))}
        {thumb ? null : (
          <>
            {ticks(low, high, 6).map((degrees) => (
              <g key={degrees}>
                <line x1={edge.left} x2={width - edge.right} y1={atDegrees(degrees)} y2={atDegrees(degrees)} stroke="var(--color-line)" strokeWidth={0.75} />
                <text x={edge.left - 6} y={atDegrees(degrees)} dy="0.35em" textAnchor="end" fontSize={13} fill="var(--color-soft)" className="figure">
                  {degrees}°
                </text>
              </g>
            ))}
            {hoursOf(time, 72).map((at) => (
              <text key={at.toISOString()} x={x(at)} y={height - 10} textAnchor="middle" fontSize={13} fill="var(--color-soft)" className="figure">
                {sorted.length + moments.length > 0 || now ? units.clock(at.toISOString()) : ""}
              </text>
            ))}
            {top >= ceiling ? (
              <line x1={edge.left} x2={width - edge.right} y1={y(ceiling)} y2={y(ceiling)} stroke="var(--color-hot)" strokeWidth={2} strokeDasharray="2 4" />
            ) : null}
            {beside.map(({ at, lines, range, size }, index) => {
              const middle = middles[index] as number;
              const left = width - edge.right + 6;
              const scorch = lines[0] === "scorch" && index === beside.length - 1 && top >= ceiling;
              return (
                <g key={`${lines.join()}${range}`} fill={`var(--color-${scorch ? "hot" : "inside"})`}>
                  {Math.abs(middle - at) > 4 ? <path d={`M${left - 6} ${at}L${left - 2} ${middle}`} stroke="var(--color-soft)" fill="none" /> : null}
                  {[...lines, range].map((text, row) => (
                    <text
                      key={text}
                      x={left}
                      y={middle - size / 2 + (row + 1) * LINE - 4}
                      fontSize={13}
                      fontWeight={row < lines.length ? 700 : 400}
                      className={row < lines.length ? undefined : "figure"}
                    >
                      {text}
                    </text>
                  ))}
                </g>
              );
            })}
          </>
        )}
        {time.gaps.map((gap) => {
          const [from, to] = [x(gap.from), x(gap.to)];
          return (
            <g key={gap.from}>
              <rect x={from} width={to - from} y={edge.top} height={foot - edge.top} fill="var(--color-sheet)" />
              {[from, to].map((at) => (
                <line key={at} x1={at} x2={at} y1={edge.top} y2={foot} stroke="var(--color-soft)" strokeWidth={1.5} strokeDasharray="6 4" />
              ))}
            </g>
          );
        })}
        {runs.map((run) => (
          <path key={run[0]?.at} d={path(run)} fill="none" stroke="var(--color-ink)" strokeWidth={thumb ? 1.5 : 3} strokeLinejoin="round" />
        ))}
        {named.map((moment) => (
          <g key={moment.at + moment.name}>
            <line
              x1={moment.x}
              x2={moment.x}
              y1={thumb ? height - 8 : edge.top}
              y2={thumb ? foot : foot + (moment.row + 1) * LINE}
              stroke="var(--color-soft)"
              strokeWidth={thumb ? 1.5 : 1}
              strokeDasharray={thumb ? undefined : "1 4"}
            />
            {thumb ? null : (
              <text x={moment.from} y={foot + (moment.row + 1) * LINE - 3} fontSize={13} fill="var(--color-soft)">
                {moment.name}
              </text>
            )}
          </g>
        ))}
        {time.gaps.map((gap) => {
          const middle = (x(gap.from) + x(gap.to)) / 2;
          if (thumb) return null;
          return (
            <text
              key={gap.from}
              transform={`translate(${middle} ${(edge.top + foot) / 2}) rotate(-90)`}
              dy="0.35em"
              textAnchor="middle"
              fontSize={13}
              fill="var(--color-soft)"
              stroke="var(--color-sheet)"
              strokeWidth={6}
              paintOrder="stroke"
            >
              {writeDuration((gap.to - gap.from) / 1_000)}
            </text>
          );
        })}
        {now ? <line x1={x(Date.parse(now))} x2={x(Date.parse(now))} y1={edge.top} y2={foot} stroke="var(--color-ink)" strokeWidth={1} /> : null}
        {newest && foreseen.length > 0 ? (
          <g stroke="var(--color-ink)" fill="none">
            <path
              d={`M${x(Date.parse(newest.at))} ${y(newest.celsius)}${foreseen.map((one) => `L${x(Date.parse(one.at))} ${y(one.celsius)}`).join("")}`}
              strokeWidth={2}
              strokeDasharray="3 5"
            />
            {foreseen.map((one) => {
              const [from, to] = [x(Date.parse(one.low)), x(Date.parse(one.high))];
              const at = y(one.celsius);
              return <path key={one.celsius} d={`M${from} ${at}H${to}M${from} ${at - 6}V${at + 6}M${to} ${at - 6}V${at + 6}`} strokeWidth={1.5} />;
            })}
          </g>
        ) : null}
        {sorted.map((mark) => (
          <Mark
            key={`${mark.at}${mark.celsius}${mark.act}`}
            kind={mark.instrumentKind}
            x={x(Date.parse(mark.at))}
            y={y(mark.celsius)}
            r={radius}
            tone={toneOf(mark.celsius, rangeOf(mark.act))}
          />
        ))}
        {figures.map(({ mark, tone, text, options }, index) => {
          // The newest is told even where it is crowded.
          const place = places[index] ?? (index === 0 ? options[0] : null);
          if (!place) return null;
          return (
            <text
              key={`t${mark.at}${mark.celsius}${mark.act}`}
              x={place.x + place.width / 2}
              y={place.y + 12}
              textAnchor="middle"
              fontSize={15}
              fill={`var(--color-${tone})`}
              className="figure"
            >
              {text}
            </text>
          );
        })}
      </svg>
    </div>
  );
}
