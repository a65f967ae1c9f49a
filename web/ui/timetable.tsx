"use client";

import { line } from "d3-shape";
import { memo, type PointerEvent, useState } from "react";
import { across } from "./across";
import { useGrowing } from "./growing";
import { useWidth } from "./size";
import { useUnits } from "./units";

export interface TimetableRow {
  key: string;
  /** What it is called by in short: its number. */
  number: number;
  name: string;
  /** Minutes from the beginning. */
  steps: { id: string; name: string; start: number; end: number; hands: boolean; heats: boolean; held?: boolean }[];
}

interface TimetableProps {
  rows: TimetableRow[];
  /** When the day begins, as ISO text. */
  begin: string;
  /** What is looked at, by the key of its row; the others step back. */
  lit: string | null;
  label: string;
  /** What hands do in the waits. */
  chores?: { number: number; name: string; parts: { start: number; end: number }[] }[];
  /** When nobody works. */
  breaks?: { from: number; minutes: number }[];
  /** What is taken when: a burner, a pitcher; each by the numbers of the pots that have it. */
  lanes?: { name: string; taken: { number: number; start: number; end: number }[] }[];
  /** How warm each pot is, in °C. */
  heats?: { key: string; number: number; points: { minute: number; celsius: number }[] }[];
  /** A step was drawn to another minute. */
  onMove?: (row: string, step: string, minute: number) => void;
}

const ROW = 40;
const LANE = 22;
const TOP = 26;
const LEFT = 150;
const HEATS = 150;
/** So many pots are drawn with one frame. */
const PER_FRAME = 8;
const CHORES_AS_ONE = 6;
const NONE: never[] = [];

/** The hours to write: whole ones, or parts where there is room for them. */
function hoursBetween(from: number, to: number, width: number): number[] {
  const step = [15, 30, 60, 120, 180, 360].find((one) => (one / (to - from)) * width >= 62) ?? 720;
  const first = Math.ceil(from / step);
  return Array.from({ length: Math.max(0, Math.floor(to / step) - first + 1) }, (_, at) => (first + at) * step);
}

/**
 * A day at the pots: one wick's line a pot, thick where hands work, striped where it stands on the heat, thin where it only
 * waits; above them the hands of all together, in which nothing may lie on anything; below them who has which burner and pitcher, and how
 * warm every pot is, all on one clock.
 */
export const Timetable = memo(function Timetable({
  rows: all,
  begin,
  lit,
  label,
  chores: allChores = NONE,
  breaks = NONE,
  lanes: allLanes = NONE,
  heats: allHeats = NONE,
  onMove,
}: TimetableProps) {
  // Pots first, then who has what, then how warm each is, then what the hands do meanwhile: a little with each frame.
  const after = [all.length, allLanes.length, allHeats.length, Math.ceil(allChores.length / CHORES_AS_ONE)];
  const many = useGrowing(
    after.reduce((sum, one) => sum + one, 0),
    PER_FRAME,
  );
  const upTo = (part: number) => Math.max(0, Math.min(after[part] as number, many - after.slice(0, part).reduce((sum, one) => sum + one, 0)));
  const part = <T,>(list: readonly T[], n: number): readonly T[] => (n >= list.length ? list : list.slice(0, n));
  const rows = part(all, upTo(0));
  const lanes = part(allLanes, upTo(1));
  const heats = part(allHeats, upTo(2));
  const chores = part(allChores, upTo(3) * CHORES_AS_ONE);
  const units = useUnits();
  const { ref, width } = useWidth<HTMLDivElement>(900);
  const [drawn, setDrawn] = useState<{ row: string; step: string; by: number; from: number } | null>(null);
  const left = width < 620 ? 86 : LEFT;
  const first = Math.min(0, ...allChores.flatMap((one) => one.parts.map((part) => part.start)));
  const last = Math.max(30, ...all.flatMap((row) => row.steps.map((step) => step.end)));
  const x = across([first, last], [left, width - 12]);
  const perMinute = (width - 12 - left) / (last - first);
  const clock = (minutes: number) => units.clock(new Date(Date.parse(begin) + minutes * 60_000).toISOString());
  const y = (row: number) => TOP + ROW * row + ROW / 2;
  const potsEnd = TOP + ROW * (all.length + 1) + 6;
  const lanesEnd = potsEnd + (allLanes.length > 0 ? LANE * allLanes.length + 10 : 0);
  const height = lanesEnd + (allHeats.length > 0 ? HEATS : 0) + 2;
  const busy = rows.flatMap((row) => row.steps.filter((step) => step.hands && step.end > step.start).map((step) => ({ row, step })));
  const letters = Math.floor((left - 26) / 7.2);
  const short = (name: string) => (name.length > letters ? `${name.slice(0, letters - 1)}…` : name);
  const said = rows
    .map((row) => `pot ${row.number}, ${row.name}: ${row.steps.map((step) => `${step.name} ${clock(step.start)} to ${clock(step.end)}`).join(", ")}`)
    .join("; ");
  const wide = (from: number, to: number) => Math.max(2, x(to) - x(from) - 1);
  const faded = (number: number) => (lit && rows.find((row) => row.key === lit)?.number !== number ? 0.25 : 1);

  const grab = (row: string, step: string) =>
    onMove && {
      onPointerDown: (event: PointerEvent<SVGRectElement>) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrawn({ row, step, by: 0, from: event.clientX });
      },
      onPointerMove: (event: PointerEvent<SVGRectElement>) => setDrawn((now) => now && { ...now, by: Math.round((event.clientX - now.from) / perMinute) }),
      onPointerUp: () => {
        const at = rows.find((one) => one.key === row)?.steps.find((one) => one.id === step);
        if (drawn && at && drawn.by !== 0) onMove(row, step, Math.max(0, at.start + drawn.by));
        setDrawn(null);
      },
      onPointerCancel: () => setDrawn(null),
      style: { cursor: "ew-resize", touchAction: "none" },
    };

  const warmest = Math.max(60, ...heats.flatMap((one) => one.points.map((point) => point.celsius)));
  const warm = across([15, warmest + 6], [lanesEnd + HEATS - 8, lanesEnd + 14]);
  const path = line<{ minute: number; celsius: number }>(
    (point) => x(point.minute),
    (point) => warm(point.celsius),
  );
  return (
    <div ref={ref} className="w-full min-w-0 overflow-hidden">
      <svg width={width} height={height} role="img" aria-label={`${label}. ${said}`} className="block bg-sheet select-none">
        <defs>
          <pattern id="on-the-heat" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="7" height="7" fill="var(--color-sheet)" />
            <rect width="3.5" height="7" fill="var(--color-hot)" />
          </pattern>
        </defs>
        {hoursBetween(first, last, width - left - 12).map((minute) => (
          <g key={minute}>
            <line x1={x(minute)} x2={x(minute)} y1={TOP - 4} y2={height - 6} stroke="var(--color-line)" strokeWidth={1} />
            <text x={x(minute)} y={TOP - 10} textAnchor="middle" fontSize={13} fill="var(--color-soft)" className="figure">
              {clock(minute)}
            </text>
          </g>
        ))}
        {first < 0 ? <line x1={x(0)} x2={x(0)} y1={TOP - 4} y2={potsEnd} stroke="var(--color-ink)" strokeWidth={1} strokeDasharray="3 3" /> : null}
        {breaks.map((one) => (
          <rect key={one.from} x={x(one.from)} width={wide(one.from, one.from + one.minutes)} y={TOP - 2} height={potsEnd - TOP} fill="var(--color-wax)" />
        ))}
        <text x={0} y={y(0)} dy="0.35em" fontSize={14} fontWeight={700} fill="var(--color-ink)">
          hands
        </text>
        {chores.flatMap((one) =>
          one.parts.map((part) => (
            <rect
              key={`${one.number}${one.name}${part.start}`}
              x={x(part.start)}
              width={wide(part.start, part.end)}
              y={y(0) - 8}
              height={16}
              fill="var(--color-sheet)"
              stroke="var(--color-ink)"
              strokeWidth={1.5}
              opacity={faded(one.number)}
            />
          )),
        )}
        {busy.map(({ row, step }) => (
          <g key={`${row.key}${step.id}`} opacity={lit && lit !== row.key ? 0.25 : 1}>
            <rect x={x(step.start)} width={wide(step.start, step.end)} y={y(0) - 12} height={24} fill="var(--color-ink)" />
            {x(step.end) - x(step.start) > 9 + 8 * String(row.number).length ? (
              <text
                x={(x(step.start) + x(step.end)) / 2}
                y={y(0)}
                dy="0.35em"
                textAnchor="middle"
                fontSize={14}
                fontWeight={700}
                fill="var(--color-sheet)"
                className="figure"
              >
                {row.number}
              </text>
            ) : null}
          </g>
        ))}
        {rows.map((row, at) => {
          const [begins, end] = [row.steps[0], row.steps.at(-1)];
          return (
            <g key={row.key} opacity={lit && lit !== row.key ? 0.35 : 1}>
              <text x={0} y={y(at + 1)} dy="0.35em" fontSize={14} fill="var(--color-ink)">
                <tspan fontWeight={700}>{row.number}</tspan> {short(row.name)}
              </text>
              {begins && end ? <line x1={x(begins.start)} x2={x(end.end)} y1={y(at + 1)} y2={y(at + 1)} stroke="var(--color-ink)" strokeWidth={2} /> : null}
              {row.steps.map((step) => {
                const by = drawn && drawn.row === row.key && drawn.step === step.id ? drawn.by : 0;
                return (
                  <g key={step.id}>
                    <rect
                      x={x(step.start + by)}
                      width={wide(step.start, step.end)}
                      y={y(at + 1) - 10}
                      height={20}
                      fill={step.heats ? "url(#on-the-heat)" : step.hands ? "var(--color-ink)" : "var(--color-wax)"}
                      stroke={step.heats ? "var(--color-hot)" : "var(--color-ink)"}
                      strokeWidth={1.5}
                      {...grab(row.key, step.id)}
                    />
                    {step.held && by === 0 ? (
                      <path d={`M ${x(step.start)} ${y(at + 1) - 12} l -5 -6 h 10 Z`} fill="var(--color-act)" stroke="var(--color-ink)" strokeWidth={1} />
                    ) : null}
                    {by !== 0 ? (
                      <text x={x(step.start + by)} y={y(at + 1) - 13} fontSize={14} fontWeight={700} fill="var(--color-ink)" className="figure">
                        {clock(Math.max(0, step.start + by))}
                      </text>
                    ) : null}
                  </g>
                );
              })}
            </g>
          );
        })}
        {lanes.map((lane, at) => {
          const middle = potsEnd + LANE * at + LANE / 2;
          return (
            <g key={lane.name}>
              <text x={0} y={middle} dy="0.35em" fontSize={13} fill="var(--color-soft)">
                {lane.name}
              </text>
              {lane.taken.map((one) => (
                <g key={one.start} opacity={faded(one.number)}>
                  <rect
                    x={x(one.start)}
                    width={wide(one.start, one.end)}
                    y={middle - 8}
                    height={16}
                    fill="var(--color-wax)"
                    stroke="var(--color-ink)"
                    strokeWidth={1}
                  />
                  {x(one.end) - x(one.start) > 9 + 8 * String(one.number).length ? (
                    <text
                      x={(x(one.start) + x(one.end)) / 2}
                      y={middle}
                      dy="0.35em"
                      textAnchor="middle"
                      fontSize={13}
                      fill="var(--color-ink)"
                      className="figure"
                    >
                      {one.number}
                    </text>
                  ) : null}
                </g>
              ))}
            </g>
          );
        })}
        {heats.length > 0 ? (
          <g>
            {[20, 40, 60, 80, 100]
              .filter((celsius) => celsius < warmest + 6)
              .map((celsius) => (
                <g key={celsius}>
                  <line x1={left} x2={width - 12} y1={warm(celsius)} y2={warm(celsius)} stroke="var(--color-line)" strokeWidth={1} />
                  <text x={left - 6} y={warm(celsius)} dy="0.35em" textAnchor="end" fontSize={13} fill="var(--color-soft)" className="figure">
                    {units.t(celsius * 100)}
                  </text>
                </g>
              ))}
            {heats.map((one) => {
              const top = one.points.reduce((most, point) => (point.celsius > most.celsius ? point : most), one.points[0] ?? { minute: 0, celsius: 0 });
              return (
                <g key={one.key} opacity={lit && lit !== one.key ? 0.25 : 1}>
                  <path d={path(one.points) ?? ""} fill="none" stroke="var(--color-ink)" strokeWidth={lit === one.key ? 3.5 : 2} />
                  <text x={x(top.minute)} y={warm(top.celsius) - 5} fontSize={13} fontWeight={700} textAnchor="end" fill="var(--color-ink)" className="figure">
                    {one.number}
                  </text>
                </g>
              );
            })}
          </g>
        ) : null}
      </svg>
    </div>
  );
});
