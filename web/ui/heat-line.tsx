"use client";

import { type Band, standing, type TemperatureRange } from "@hearth/core";
import { scaleLinear, scaleUtc } from "d3-scale";
import { line } from "d3-shape";
import { useWidth } from "./size";
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

interface HeatLineProps {
  bands: Band[];
  ceiling: number;
  marks: HeatMark[];
  /** Moments on the time axis: stirred, poured. */
  moments?: { at: string; name: string }[];
  /** Drawn as a hairline where the pot still runs. */
  now?: string | null;
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

/** The marks whose figures find room: none within 34 px of the one before, the newest always. */
function labelled(marks: HeatMark[], x: (at: number) => number): HeatMark[] {
  const out: HeatMark[] = [];
  for (const mark of [...marks].reverse()) {
    const last = out.at(-1);
    if (!last || Math.abs(x(Date.parse(last.at)) - x(Date.parse(mark.at))) >= 34) out.push(mark);
  }
  return out;
}

/** Time across, temperature up; the ranges as bands, readings as marks shaped by instrument. */
export function HeatLine({ bands: ranges, ceiling, marks, moments = [], now = null, height = 280, thumb = false, label }: HeatLineProps) {
  const units = useUnits();
  const { ref, width } = useWidth<HTMLDivElement>(thumb ? 132 : 640);
  const edge = thumb ? { top: 3, right: 3, bottom: 3, left: 3 } : { top: 14, right: 104, bottom: 30, left: 46 };
  const sorted = [...marks].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const times = [...sorted.map((mark) => mark.at), ...moments.map((moment) => moment.at), ...(now ? [now] : [])].map((at) => Date.parse(at));
  const first = times.length > 0 ? Math.min(...times) : 0;
  const last = times.length > 0 ? Math.max(...times) : 3_600_000;
  const room = Math.max(last - first, 900_000) * 0.06;
  const x = scaleUtc([first - room, Math.max(last, first + 900_000) + room], [edge.left, width - edge.right]);
  const warmest = Math.max(...sorted.map((mark) => mark.celsius), ...ranges.map((one) => one.range.high));
  const coolest = Math.min(...sorted.map((mark) => mark.celsius), ...ranges.map((one) => one.range.low));
  const top = warmest > ceiling - 800 ? Math.max(warmest, ceiling) : warmest;
  const y = scaleLinear([coolest - 500, top + 400], [height - edge.bottom, edge.top]);

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
  const path = line<HeatMark>(
    (mark) => x(Date.parse(mark.at)),
    (mark) => y(mark.celsius),
  );
  const inUnit = y.copy().domain(y.domain().map((centi) => (units.temperature === "C" ? centi / 100 : (centi / 100) * 1.8 + 32)));
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
            {thumb ? null : (
              <text x={width - edge.right + 6} y={(y(range.low) + y(range.high)) / 2} dy="-0.15em" fontSize={13} fontWeight={700} fill="var(--color-inside)">
                {names.join(", ")}
                <tspan x={width - edge.right + 6} dy="1.15em" fontWeight={400} className="figure">
                  {units.range(range)}
                </tspan>
              </text>
            )}
          </g>
        ))}
        {thumb ? null : (
          <>
            {inUnit.ticks(6).map((degrees) => (
              <g key={degrees}>
                <line x1={edge.left} x2={width - edge.right} y1={inUnit(degrees)} y2={inUnit(degrees)} stroke="var(--color-line)" strokeWidth={0.75} />
                <text x={edge.left - 6} y={inUnit(degrees)} dy="0.35em" textAnchor="end" fontSize={13} fill="var(--color-soft)" className="figure">
                  {degrees}°
                </text>
              </g>
            ))}
            {x.ticks(Math.max(2, Math.floor(width / 140))).map((at) => (
              <text key={at.toISOString()} x={x(at)} y={height - 10} textAnchor="middle" fontSize={13} fill="var(--color-soft)" className="figure">
                {sorted.length + moments.length > 0 || now ? units.clock(at.toISOString()) : ""}
              </text>
            ))}
            {top >= ceiling ? (
              <g>
                <line x1={edge.left} x2={width - edge.right} y1={y(ceiling)} y2={y(ceiling)} stroke="var(--color-hot)" strokeWidth={2} strokeDasharray="2 4" />
                <text x={width - edge.right + 6} y={y(ceiling)} fontSize={13} fontWeight={700} fill="var(--color-hot)">
                  scorch {units.t(ceiling)}
                </text>
              </g>
            ) : null}
          </>
        )}
        {runs.map((run) => (
          <path key={run[0]?.at} d={path(run) ?? ""} fill="none" stroke="var(--color-ink)" strokeWidth={thumb ? 1.5 : 3} strokeLinejoin="round" />
        ))}
        {moments.map((moment) => (
          <g key={moment.at + moment.name}>
            <line
              x1={x(Date.parse(moment.at))}
              x2={x(Date.parse(moment.at))}
              y1={thumb ? height - 8 : edge.top}
              y2={height - edge.bottom}
              stroke="var(--color-soft)"
              strokeWidth={thumb ? 1.5 : 1}
              strokeDasharray={thumb ? undefined : "1 4"}
            />
            {thumb ? null : (
              <text x={x(Date.parse(moment.at)) + 4} y={height - edge.bottom - 6} fontSize={13} fill="var(--color-soft)">
                {moment.name}
              </text>
            )}
          </g>
        ))}
        {now ? (
          <line x1={x(Date.parse(now))} x2={x(Date.parse(now))} y1={edge.top} y2={height - edge.bottom} stroke="var(--color-ink)" strokeWidth={1} />
        ) : null}
        {sorted.map((mark) => (
          <Mark
            key={`${mark.at}${mark.celsius}${mark.act}`}
            kind={mark.instrumentKind}
            x={x(Date.parse(mark.at))}
            y={y(mark.celsius)}
            r={thumb ? 3 : sorted.length > 60 ? 3 : 7}
            tone={toneOf(mark.celsius, rangeOf(mark.act))}
          />
        ))}
        {thumb
          ? null
          : labelled(sorted, x).map((mark) => {
              const tone = toneOf(mark.celsius, rangeOf(mark.act));
              return (
                <text
                  key={`t${mark.at}${mark.celsius}${mark.act}`}
                  x={x(Date.parse(mark.at))}
                  y={y(mark.celsius) - 13}
                  textAnchor="middle"
                  fontSize={15}
                  fill={`var(--color-${tone})`}
                  className="figure"
                >
                  {tone === "hot" ? "▲ " : tone === "cool" ? "▼ " : ""}
                  {units.tParts(mark.celsius).figure}
                </text>
              );
            })}
      </svg>
    </div>
  );
}
