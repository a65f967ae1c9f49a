"use client";

import { cellInUnits, FULL_FROM, FULL_UNTIL, type TrialPlan, type TrialState, variantsOf, widthOf } from "@hearth/core";
import { group, max } from "d3-array";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { memo, useMemo } from "react";
import { spread } from "@/ui/heat-scale";
import { Picture } from "@/ui/picture";
import { useWidth } from "@/ui/size";
import { SizedSvg } from "@/ui/sized-svg";
import { useUnits } from "@/ui/units";
import { type Line, linesOf, type Measured } from "./model";

const [HEIGHT, LEFT, RIGHT, TOP, BOTTOM] = [330, 62, 64, 14, 50];
/** Ends of lines so near one another share a column of names, which are moved apart. */
const COLUMN = 56;
const NAME = 15;
/** Beyond so many, names would cover the lines; one session at a time shows them. */
const MAX_NAMES = 48;
/** Beyond so many points lines are thin and plain: dashes could not be told apart, and take long to paint. */
const MAX_DOTS = 300;
/** Variants are told apart by their dashes and by their letters, since colors mean other things here. */
const DASHES = ["", "9 5", "2 5", "14 4 2 4", "5 3", "1 6", "18 6", "8 3 2 3 2 3"];

export const dashOf = (variants: readonly string[], variant: string): string => DASHES[variants.indexOf(variant) % DASHES.length] ?? "";

interface PoolChartProps {
  plan: TrialPlan;
  state: TrialState;
  what: Measured;
  /** One session, or all of them where it is null. */
  session: number | null;
}

/** Pool or depth against time, all test candles of a trial in one picture. */
export const PoolChart = memo(function PoolChart({ plan, state, what, session }: PoolChartProps) {
  const units = useUnits();
  const size = useWidth<HTMLDivElement>(720);
  const { width } = size;
  const variants = useMemo(() => variantsOf(plan), [plan]);
  const drawn = useMemo(() => {
    const lines = linesOf(plan, state, what).map(
      (line): Line => ({ ...line, sessions: line.sessions.filter((each) => session === null || each.session === session) }),
    );
    const shown = lines.filter((line) => line.sessions.length > 0);
    const points = shown.flatMap((line) => line.sessions.flatMap((each) => each.points));
    const wide = what === "pool" ? (max(plan.testCandles, (item) => widthOf(item) * 1_000) ?? 0) : 0;
    const xMost = Math.max(FULL_UNTIL, max(points, (item) => item[0]) ?? 0) * 1.02;
    const yMost = Math.max(wide, max(points, (item) => item[1]) ?? 0, 10_000) * 1.06;
    const x = scaleLinear([0, xMost], [LEFT, width - RIGHT]);
    const y = scaleLinear([0, yMost], [HEIGHT - BOTTOM, TOP]);
    const path = line<readonly [number, number]>(
      ([minute]) => x(minute),
      ([, um]) => y(um),
    );
    const walls = what === "pool" ? [...new Set(plan.testCandles.map((testCandle) => Math.round(widthOf(testCandle) * 1_000)))] : [];
    const inch = units.length === "in" ? 25_400 : 1_000;
    const ends = shown.flatMap((line) =>
      line.sessions.map((each) => {
        const end = each.points.at(-1) as [number, number];
        return { name: session === null ? `${line.key}·${each.session}` : line.key, x: x(end[0]), y: y(end[1]) };
      }),
    );
    const names = [...group(ends, (item) => Math.round(item.x / COLUMN)).values()].flatMap((column) => {
      const sorted = [...column].sort((a, b) => a.y - b.y);
      const ys = spread(
        sorted.map((item) => ({ at: item.y, size: NAME })),
        [TOP, HEIGHT - BOTTOM],
      );
      const right = Math.max(...column.map((item) => item.x)) + 7;
      return sorted.map((item, index) => ({ ...item, x: right, y: (ys[index] ?? item.y) + 5 }));
    });
    // One stroke a variant and one for all the dots: a picture of forty test candles holds nothing up.
    const strokes = variants.map((variant) => ({
      variant,
      d: shown
        .filter((line) => line.variant === variant)
        .flatMap((line) => line.sessions.map((each) => path(each.points)))
        .join(""),
    }));
    const dots = shown
      .flatMap((line) => line.sessions.flatMap((each) => each.points.map((point) => `M${x(point[0]).toFixed(1)} ${y(point[1]).toFixed(1)}h0`)))
      .join("");
    return {
      crowded: points.length > MAX_DOTS,
      strokes,
      dots,
      names: names.length > MAX_NAMES ? [] : names,
      lines: shown,
      x,
      y,
      path,
      walls,
      yTicks: scaleLinear([0, yMost / inch], [0, 1])
        .ticks(5)
        .map((tick) => tick * inch),
      xTicks: scaleLinear([0, xMost / 60], [0, 1])
        .ticks(5)
        .map((tick) => tick * 60),
    };
  }, [plan, state, what, session, units.length, variants, width]);
  const { x, y } = drawn;
  const name = what === "pool" ? "Melt pool" : "Depth of the pool";
  return (
    <Picture
      name={`${plan.name}, ${name.toLowerCase()}`}
      heads={["test candle", "variant", "session", "minute", `${what} in ${units.length}`]}
      rows={drawn.lines.flatMap((line) =>
        line.sessions.flatMap((each) =>
          each.points.map(([minute, um]) => [line.key, line.words, each.session, Math.round(minute), cellInUnits("mm", um / 1_000, units)]),
        ),
      )}
    >
      <SizedSvg size={size} height={HEIGHT} label={`${name} against time, ${drawn.lines.length} test candles`}>
        {what === "pool" ? <rect x={x(FULL_FROM)} width={x(FULL_UNTIL) - x(FULL_FROM)} y={TOP} height={HEIGHT - TOP - BOTTOM} fill="var(--color-wax)" /> : null}
        {drawn.yTicks.map((um) => (
          <g key={um}>
            <line x1={LEFT} x2={width - RIGHT} y1={y(um)} y2={y(um)} stroke="var(--color-line)" />
            <text x={LEFT - 8} y={y(um) + 5} textAnchor="end" fontSize={14} fill="var(--color-ink)">
              {units.len(um)}
            </text>
          </g>
        ))}
        {drawn.xTicks.map((minute) => (
          <text key={minute} x={x(minute)} y={HEIGHT - 28} textAnchor="middle" fontSize={14} fill="var(--color-ink)">
            {units.n(minute / 60, 1)} h
          </text>
        ))}
        <text x={width - RIGHT} y={HEIGHT - 8} textAnchor="end" fontSize={14} fill="var(--color-ink)">
          hours after lighting{what === "pool" ? "; shaded: when the pool should be full" : ""}
        </text>
        {drawn.walls.map((um) => (
          <g key={um}>
            <line x1={LEFT} x2={width - RIGHT} y1={y(um)} y2={y(um)} stroke="var(--color-ink)" strokeWidth={3} />
            <text x={LEFT + 6} y={y(um) + 16} fontSize={13} fill="var(--color-ink)">
              the wall
            </text>
          </g>
        ))}
        {drawn.strokes.map((stroke) => (
          <path
            key={stroke.variant}
            d={stroke.d}
            fill="none"
            stroke="var(--color-ink)"
            strokeWidth={drawn.crowded ? 1.25 : 2.25}
            strokeDasharray={drawn.crowded ? "" : dashOf(variants, stroke.variant)}
          />
        ))}
        <path d={drawn.dots} fill="none" stroke="var(--color-ink)" strokeWidth={drawn.crowded ? 4 : 7} strokeLinecap={drawn.crowded ? "square" : "round"} />
        {drawn.names.map((name) => (
          <text key={name.name} x={name.x} y={name.y} fontSize={13} fontWeight={600} fill="var(--color-ink)">
            {name.name}
          </text>
        ))}
      </SizedSvg>
    </Picture>
  );
});
