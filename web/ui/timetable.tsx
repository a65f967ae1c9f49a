"use client";

import { line } from "d3-shape";
import { memo, type PointerEvent, useMemo, useState } from "react";
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
const PER_FRAME = 3;
const NONE: never[] = [];

/** The hours to write: whole ones, or parts where there is room for them. */
function hoursBetween(from: number, to: number, width: number): number[] {
  const step = [15, 30, 60, 120, 180, 360].find((one) => (one / (to - from)) * width >= 62) ?? 720;
  const first = Math.ceil(from / step);
  return Array.from({ length: Math.max(0, Math.floor(to / step) - first + 1) }, (_, at) => (first + at) * step);
}

interface Scale {
  first: number;
  last: number;
  left: number;
  width: number;
}
const scaleOf = ({ first, last, left, width }: Scale) => {
  const x = across([first, last], [left, width - 12]);
  return { x, wide: (from: number, to: number) => Math.max(2, x(to) - x(from) - 1), perMinute: (width - 12 - left) / (last - first) };
};

/** The hours as lines through one strip of the drawing, and when nobody works. */
function Ground({ hours, breaks, height, ...scale }: Scale & { hours: readonly number[]; breaks: TimetableProps["breaks"]; height: number }) {
  const { x, wide } = scaleOf(scale);
  return (
    <>
      {breaks?.map((one) => (
        <rect key={one.from} x={x(one.from)} width={wide(one.from, one.from + one.minutes)} y={0} height={height} fill="var(--color-wax)" />
      ))}
      {hours.map((minute) => (
        <line key={minute} x1={x(minute)} x2={x(minute)} y1={0} y2={height} stroke="var(--color-line)" strokeWidth={1} />
      ))}
      {scale.first < 0 ? <line x1={x(0)} x2={x(0)} y1={0} y2={height} stroke="var(--color-ink)" strokeWidth={1} strokeDasharray="3 3" /> : null}
    </>
  );
}

/** The number of a pot in the middle of a stretch, where there is room for it. */
function Numbered({
  n,
  from,
  to,
  y,
  size,
  bold = false,
  colour,
}: {
  n: number;
  from: number;
  to: number;
  y: number;
  size: number;
  bold?: boolean;
  colour: string;
}) {
  if (to - from <= 9 + 8 * String(n).length) return null;
  return (
    <text x={(from + to) / 2} y={y} dy="0.35em" textAnchor="middle" fontSize={size} {...(bold ? { fontWeight: 700 } : {})} fill={colour} className="figure">
      {n}
    </text>
  );
}

interface PotLineProps extends Scale {
  row: TimetableRow;
  hours: readonly number[];
  breaks: TimetableProps["breaks"];
  back: boolean;
  begin: string;
  onMove: TimetableProps["onMove"];
}

/** The line of one pot: a drawing of its own, so that what changes in another does not draw it anew. */
const PotLine = memo(function PotLine({ row, hours, breaks, back, begin, onMove, ...scale }: PotLineProps) {
  const units = useUnits();
  const [drawn, setDrawn] = useState<{ step: string; by: number; from: number } | null>(null);
  const { x, wide, perMinute } = scaleOf(scale);
  const letters = Math.floor((scale.left - 26) / 7.2);
  const short = row.name.length > letters ? `${row.name.slice(0, letters - 1)}…` : row.name;
  const [begins, end] = [row.steps[0], row.steps.at(-1)];
  const middle = ROW / 2;
  const grab = (step: TimetableRow["steps"][number]) =>
    onMove && {
      onPointerDown: (event: PointerEvent<SVGRectElement>) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrawn({ step: step.id, by: 0, from: event.clientX });
      },
      onPointerMove: (event: PointerEvent<SVGRectElement>) => setDrawn((now) => now && { ...now, by: Math.round((event.clientX - now.from) / perMinute) }),
      onPointerUp: () => {
        if (drawn && drawn.by !== 0) onMove(row.key, step.id, Math.max(0, step.start + drawn.by));
        setDrawn(null);
      },
      onPointerCancel: () => setDrawn(null),
      style: { cursor: "ew-resize", touchAction: "none" },
    };
  return (
    <svg width={scale.width} height={ROW} aria-hidden="true" className="block">
      <Ground {...scale} hours={hours} breaks={breaks} height={ROW} />
      <g {...(back ? { opacity: 0.35 } : {})}>
        <text x={0} y={middle} dy="0.35em" fontSize={14} fill="var(--color-ink)">
          <tspan fontWeight={700}>{row.number}</tspan> {short}
        </text>
        {begins && end ? <line x1={x(begins.start)} x2={x(end.end)} y1={middle} y2={middle} stroke="var(--color-ink)" strokeWidth={2} /> : null}
        {row.steps.map((step) => {
          const by = drawn?.step === step.id ? drawn.by : 0;
          return (
            <g key={step.id}>
              <rect
                x={x(step.start + by)}
                width={wide(step.start, step.end)}
                y={middle - 10}
                height={20}
                fill={step.heats ? "url(#on-the-heat)" : step.hands ? "var(--color-ink)" : "var(--color-wax)"}
                stroke={step.heats ? "var(--color-hot)" : "var(--color-ink)"}
                strokeWidth={1.5}
                {...grab(step)}
              />
              {step.held && by === 0 ? (
                <path d={`M ${x(step.start)} ${middle - 11} l -5 -6 h 10 Z`} fill="var(--color-act)" stroke="var(--color-ink)" strokeWidth={1} />
              ) : null}
              {by !== 0 ? (
                <text x={x(step.start + by)} y={middle - 12} fontSize={14} fontWeight={700} fill="var(--color-ink)" className="figure">
                  {units.clock(new Date(Date.parse(begin) + Math.max(0, step.start + by) * 60_000).toISOString())}
                </text>
              ) : null}
            </g>
          );
        })}
      </g>
    </svg>
  );
});

/**
 * A day at the pots: one wick's line a pot, thick where hands work, striped where it stands on the heat, thin where it only
 * waits; above them the hands of all together, in which nothing may lie on anything; below them who has which burner and pitcher, and how
 * warm every pot is, all on one clock.
 */
export const Timetable = memo(function Timetable(props: TimetableProps) {
  const { rows, begin, lit, label, breaks = NONE, onMove } = props;
  const units = useUnits();
  const { ref, width } = useWidth<HTMLDivElement>(900);
  const stages = [
    rows.length,
    Math.ceil((props.lanes ?? NONE).length / 2),
    Math.ceil((props.heats ?? NONE).length / 2),
    Math.ceil((props.chores ?? NONE).length / 4),
  ] as const;
  const grown = useGrowing(
    stages.reduce((sum, one) => sum + one, 0),
    PER_FRAME,
  );
  const upTo = (stage: number) => Math.max(0, grown - stages.slice(0, stage).reduce((sum, one) => sum + one, 0));
  const many = Math.min(rows.length, grown);
  const lanes = (props.lanes ?? NONE).slice(0, upTo(1) * 2);
  const heats = (props.heats ?? NONE).slice(0, upTo(2) * 2);
  const chores = (props.chores ?? NONE).slice(0, upTo(3) * 4);
  const left = width < 620 ? 86 : LEFT;
  const first = Math.min(0, ...(props.chores ?? NONE).flatMap((one) => one.parts.map((part) => part.start)));
  const last = Math.max(30, ...rows.flatMap((row) => row.steps.map((step) => step.end)));
  const scale = { first, last, left, width };
  const { x, wide } = scaleOf(scale);
  const hours = useMemo(() => hoursBetween(first, last, width - left - 12), [first, last, width, left]);
  const clock = (minutes: number) => units.clock(new Date(Date.parse(begin) + minutes * 60_000).toISOString());
  const said = rows
    .map((row) => `pot ${row.number}, ${row.name}: ${row.steps.map((step) => `${step.name} ${clock(step.start)} to ${clock(step.end)}`).join(", ")}`)
    .join("; ");
  const faded = (number: number) => (lit && rows.find((row) => row.key === lit)?.number !== number ? 0.25 : 1);
  const hands = TOP + ROW / 2;
  const warmest = Math.max(60, ...heats.flatMap((one) => one.points.map((point) => point.celsius)));
  const warm = across([15, warmest + 6], [HEATS - 8, 14]);
  const path = line<{ minute: number; celsius: number }>(
    (point) => x(point.minute),
    (point) => warm(point.celsius),
  );
  return (
    <div ref={ref} className="w-full min-w-0 overflow-hidden bg-sheet select-none" role="img" aria-label={`${label}. ${said}`}>
      <svg width={width} height={TOP + ROW} aria-hidden="true" className="block">
        <defs>
          <pattern id="on-the-heat" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="7" height="7" fill="var(--color-sheet)" />
            <rect width="3.5" height="7" fill="var(--color-hot)" />
          </pattern>
        </defs>
        <g transform={`translate(0 ${TOP - 4})`}>
          <Ground {...scale} hours={hours} breaks={breaks} height={ROW + 4} />
        </g>
        {hours.map((minute) => (
          <text key={minute} x={x(minute)} y={TOP - 10} textAnchor="middle" fontSize={13} fill="var(--color-soft)" className="figure">
            {clock(minute)}
          </text>
        ))}
        <text x={0} y={hands} dy="0.35em" fontSize={14} fontWeight={700} fill="var(--color-ink)">
          hands
        </text>
        {chores.flatMap((one) =>
          one.parts.map((part) => (
            <rect
              key={`${one.number}${one.name}${part.start}`}
              x={x(part.start)}
              width={wide(part.start, part.end)}
              y={hands - 8}
              height={16}
              fill="var(--color-sheet)"
              stroke="var(--color-ink)"
              strokeWidth={1.5}
              opacity={faded(one.number)}
            />
          )),
        )}
        {rows.slice(0, many).flatMap((row) =>
          row.steps
            .filter((step) => step.hands && step.end > step.start)
            .map((step) => (
              <g key={`${row.key}${step.id}`} opacity={lit && lit !== row.key ? 0.25 : 1}>
                <rect x={x(step.start)} width={wide(step.start, step.end)} y={hands - 12} height={24} fill="var(--color-ink)" />
                <Numbered n={row.number} from={x(step.start)} to={x(step.end)} y={hands} size={14} bold colour="var(--color-sheet)" />
              </g>
            )),
        )}
      </svg>
      {rows.slice(0, many).map((row) => (
        <PotLine key={row.key} {...scale} row={row} hours={hours} breaks={breaks} back={lit !== null && lit !== row.key} begin={begin} onMove={onMove} />
      ))}
      {many < rows.length ? <div style={{ height: (rows.length - many) * ROW }} /> : null}
      {lanes.length > 0 ? (
        <svg width={width} height={LANE * lanes.length + 14} aria-hidden="true" className="block">
          <Ground {...scale} hours={hours} breaks={NONE} height={LANE * lanes.length + 14} />
          {lanes.map((lane, at) => {
            const middle = 6 + LANE * at + LANE / 2;
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
                    <Numbered n={one.number} from={x(one.start)} to={x(one.end)} y={middle} size={13} colour="var(--color-ink)" />
                  </g>
                ))}
              </g>
            );
          })}
        </svg>
      ) : null}
      {heats.length > 0 ? (
        <svg width={width} height={HEATS} aria-hidden="true" className="block">
          <Ground {...scale} hours={hours} breaks={NONE} height={HEATS - 6} />
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
        </svg>
      ) : null}
    </div>
  );
});
