"use client";

import { across } from "./across";
import { useWidth } from "./size";
import { useUnits } from "./units";

export interface TimetableRow {
  key: string;
  /** What it is called by in short: its number. */
  number: number;
  name: string;
  /** Minutes from the beginning. */
  steps: { id: string; name: string; start: number; end: number; hands: boolean; heats: boolean }[];
}

interface TimetableProps {
  rows: TimetableRow[];
  /** When the day begins, as ISO text. */
  begin: string;
  /** What is looked at, by the key of its row; the others step back. */
  lit: string | null;
  label: string;
}

const ROW = 40;
const TOP = 26;
const LEFT = 150;

/** The hours to write: whole ones, or parts where there is room for them. */
function hoursBetween(minutes: number, width: number): number[] {
  const step = [15, 30, 60, 120, 180, 360].find((one) => (one / minutes) * width >= 62) ?? 720;
  return Array.from({ length: Math.floor(minutes / step) + 1 }, (_, at) => at * step);
}

/**
 * A day at the pots: one wick's line a pot, thick where hands work, striped where it stands on the heat, thin where it only
 * waits; above them the hands of all together, in which nothing may lie on anything.
 */
export function Timetable({ rows, begin, lit, label }: TimetableProps) {
  const units = useUnits();
  const { ref, width } = useWidth<HTMLDivElement>(900);
  const left = width < 620 ? 86 : LEFT;
  const last = Math.max(30, ...rows.flatMap((row) => row.steps.map((step) => step.end)));
  const x = across([0, last], [left, width - 12]);
  const clock = (minutes: number) => units.clock(new Date(Date.parse(begin) + minutes * 60_000).toISOString());
  const height = TOP + ROW * (rows.length + 1) + 8;
  const y = (row: number) => TOP + ROW * row + ROW / 2;
  const busy = rows.flatMap((row) => row.steps.filter((step) => step.hands && step.end > step.start).map((step) => ({ row, step })));
  const letters = Math.floor((left - 26) / 7.2);
  const short = (name: string) => (name.length > letters ? `${name.slice(0, letters - 1)}…` : name);
  const said = rows
    .map((row) => `pot ${row.number}, ${row.name}: ${row.steps.map((step) => `${step.name} ${clock(step.start)} to ${clock(step.end)}`).join(", ")}`)
    .join("; ");
  return (
    <div ref={ref} className="w-full min-w-0 overflow-hidden">
      <svg width={width} height={height} role="img" aria-label={`${label}. ${said}`} className="block bg-sheet">
        <defs>
          <pattern id="on-the-heat" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="7" height="7" fill="var(--color-sheet)" />
            <rect width="3.5" height="7" fill="var(--color-hot)" />
          </pattern>
        </defs>
        {hoursBetween(last, width - left - 12).map((minute) => (
          <g key={minute}>
            <line x1={x(minute)} x2={x(minute)} y1={TOP - 4} y2={height - 6} stroke="var(--color-line)" strokeWidth={1} />
            <text x={x(minute)} y={TOP - 10} textAnchor="middle" fontSize={13} fill="var(--color-soft)" className="figure">
              {clock(minute)}
            </text>
          </g>
        ))}
        <text x={0} y={y(0)} dy="0.35em" fontSize={14} fontWeight={700} fill="var(--color-ink)">
          hands
        </text>
        {busy.map(({ row, step }) => (
          <g key={`${row.key}${step.id}`} opacity={lit && lit !== row.key ? 0.25 : 1}>
            <rect x={x(step.start)} width={Math.max(2, x(step.end) - x(step.start) - 1)} y={y(0) - 12} height={24} fill="var(--color-ink)" />
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
          const [first, end] = [row.steps[0], row.steps.at(-1)];
          return (
            <g key={row.key} opacity={lit && lit !== row.key ? 0.35 : 1}>
              <text x={0} y={y(at + 1)} dy="0.35em" fontSize={14} fill="var(--color-ink)">
                <tspan fontWeight={700}>{row.number}</tspan> {short(row.name)}
              </text>
              {first && end ? <line x1={x(first.start)} x2={x(end.end)} y1={y(at + 1)} y2={y(at + 1)} stroke="var(--color-ink)" strokeWidth={2} /> : null}
              {row.steps.map((step) => (
                <rect
                  key={step.id}
                  x={x(step.start)}
                  width={Math.max(2, x(step.end) - x(step.start) - 1)}
                  y={y(at + 1) - 10}
                  height={20}
                  fill={step.heats ? "url(#on-the-heat)" : step.hands ? "var(--color-ink)" : "var(--color-wax)"}
                  stroke={step.heats ? "var(--color-hot)" : "var(--color-ink)"}
                  strokeWidth={1.5}
                />
              ))}
            </g>
          );
        })}
      </svg>
    </div>
  );
}
