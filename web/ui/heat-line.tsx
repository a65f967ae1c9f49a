"use client";

import { writeDuration } from "@hearth/core";
import { line } from "d3-shape";
import { useMemo } from "react";
import { type HeatLayout, type HeatLineInput, type HeatMark, LINE, layHeatLine } from "./heat-layout";
import { hoursOf } from "./heat-scale";
import { useWidth } from "./size";
import { useUnits } from "./units";

export type { HeatMark } from "./heat-layout";

/** A reading's mark: round for a probe, square on its point for infrared, upright bar for glass; hollow where unknown. */
export function Mark({ kind, x, y, r, tone }: { kind: string | null; x: number; y: number; r: number; tone: string }) {
  const paint = { fill: kind ? `var(--color-${tone})` : "var(--color-sheet)", stroke: "var(--color-sheet)", strokeWidth: 2 };
  if (kind === "infrared") return <rect x={x - r} y={y - r} width={2 * r} height={2 * r} transform={`rotate(45 ${x} ${y})`} {...paint} />;
  if (kind === "glass") return <rect x={x - r * 0.55} y={y - r * 1.3} width={r * 1.1} height={r * 2.6} {...paint} />;
  return <circle cx={x} cy={y} r={r} {...paint} stroke={kind ? "var(--color-sheet)" : `var(--color-${tone})`} />;
}

/** Degrees at the left, hours below, and where the wax scorches. */
function Axes({
  at: { edge, width, height, atDegrees, time, sorted, isScorchShown, y, named },
  ceiling,
  hasNow,
}: {
  at: HeatLayout;
  ceiling: number;
  hasNow: boolean;
}) {
  const units = useUnits();
  return (
    <>
      {atDegrees.ticks(6).map((degrees) => (
        <g key={degrees}>
          <line x1={edge.left} x2={width - edge.right} y1={atDegrees(degrees)} y2={atDegrees(degrees)} stroke="var(--color-line)" strokeWidth={0.75} />
          <text x={edge.left - 6} y={atDegrees(degrees)} dy="0.35em" textAnchor="end" fontSize={13} fill="var(--color-soft)" className="figure">
            {degrees}°
          </text>
        </g>
      ))}
      {hoursOf(time, 72).map((at) => (
        <text key={at.toISOString()} x={time.x(at)} y={height - 10} textAnchor="middle" fontSize={13} fill="var(--color-soft)" className="figure">
          {sorted.length + named.length > 0 || hasNow ? units.clock(at.toISOString()) : ""}
        </text>
      ))}
      {isScorchShown ? (
        <line x1={edge.left} x2={width - edge.right} y1={y(ceiling)} y2={y(ceiling)} stroke="var(--color-hot)" strokeWidth={2} strokeDasharray="2 4" />
      ) : null}
    </>
  );
}

/** What each range is called, at the right edge. */
function RangeNames({ at: { beside, width, edge } }: { at: HeatLayout }) {
  const left = width - edge.right + 6;
  return beside.map(({ at, lines, range, size, middle, isScorch }) => (
    <g key={`${lines.join()}${range}`} fill={`var(--color-${isScorch ? "hot" : "inside"})`}>
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
  ));
}

/** Long times in which nothing happened, as narrow breaks. */
function Breaks({ at: { time, edge, foot } }: { at: HeatLayout }) {
  return time.gaps.map((gap) => {
    const [from, to] = [time.x(gap.from), time.x(gap.to)];
    return (
      <g key={gap.from}>
        <rect x={from} width={to - from} y={edge.top} height={foot - edge.top} fill="var(--color-sheet)" />
        {[from, to].map((at) => (
          <line key={at} x1={at} x2={at} y1={edge.top} y2={foot} stroke="var(--color-soft)" strokeWidth={1.5} strokeDasharray="6 4" />
        ))}
      </g>
    );
  });
}

function BreakLengths({ at: { time, edge, foot } }: { at: HeatLayout }) {
  return time.gaps.map((gap) => (
    <text
      key={gap.from}
      transform={`translate(${(time.x(gap.from) + time.x(gap.to)) / 2} ${(edge.top + foot) / 2}) rotate(-90)`}
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
  ));
}

/** Moments as fine lines, with their names in rows below. */
function Moments({ at: { named, edge, foot, height }, thumb }: { at: HeatLayout; thumb: boolean }) {
  return named.map((moment) => (
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
  ));
}

/** What is forecast, drawn on from the newest reading, with how sure it is. */
function Foresight({ at: { readings, foreseen, x, y } }: { at: HeatLayout }) {
  const newest = readings.at(-1);
  if (!newest || foreseen.length === 0) return null;
  return (
    <g stroke="var(--color-ink)" fill="none">
      <path d={`M${newest.x} ${newest.y}${foreseen.map((item) => `L${x(item.at)} ${y(item.celsius)}`).join("")}`} strokeWidth={2} strokeDasharray="3 5" />
      {foreseen.map((item) => {
        const [from, to, at] = [x(item.low), x(item.high), y(item.celsius)];
        return <path key={item.celsius} d={`M${from} ${at}H${to}M${from} ${at - 6}V${at + 6}M${to} ${at - 6}V${at + 6}`} strokeWidth={1.5} />;
      })}
    </g>
  );
}

/** The marks of readings, of a row in a list those of steps and the newest, and their figures where there is room. */
function Readings({ at: { readings, figures, radius }, thumb }: { at: HeatLayout; thumb: boolean }) {
  const marked = thumb ? readings.filter(({ mark }, index) => mark.step !== null || index === readings.length - 1) : readings;
  return (
    <>
      {marked.map(({ mark, x, y, tone }) => (
        <Mark key={`${mark.at}${mark.celsius}${mark.step}`} kind={mark.instrumentKind} x={x} y={y} r={radius} tone={tone} />
      ))}
      {figures.map(({ mark, tone, text, x, y }) => (
        <text key={`t${mark.at}${mark.celsius}${mark.step}`} x={x} y={y} textAnchor="middle" fontSize={15} fill={`var(--color-${tone})`} className="figure">
          {text}
        </text>
      ))}
    </>
  );
}

/** Time across, temperature up; the ranges as bands, readings as marks shaped by instrument. */
export function HeatLine(props: HeatLineInput & { label: string }) {
  const { bands: ranges, ceiling, marks, moments, now = null, ahead, height, thumb = false, label } = props;
  const units = useUnits();
  const { ref, width } = useWidth<HTMLDivElement>(thumb ? 132 : 640);
  const at = useMemo(
    () =>
      layHeatLine(
        {
          bands: ranges,
          ceiling,
          marks,
          ...(moments ? { moments } : {}),
          now,
          ...(ahead === undefined ? {} : { ahead }),
          ...(height === undefined ? {} : { height }),
          thumb,
        },
        width,
        units,
      ),
    [ranges, ceiling, marks, moments, now, ahead, height, thumb, width, units],
  );
  const path = line<HeatMark>(
    (mark) => at.x(mark.at),
    (mark) => at.y(mark.celsius),
  ).digits(1);
  const nameOf = (step: string | null) => ranges.find((range) => range.step === step)?.name ?? "a look";
  const told = thumb ? at.sorted.filter((mark) => mark.step !== null) : at.sorted;
  const said = told.map((mark) => `${units.clock(mark.at)} ${units.t(mark.celsius)} for ${nameOf(mark.step)}`).join("; ");
  return (
    <div ref={ref} className={thumb ? "w-[132px]" : "w-full min-w-0 overflow-hidden"}>
      <svg width={width} height={at.height} role="img" aria-label={`${label}. ${said || "No readings yet."}`} className="block bg-sheet">
        {at.bands.map(({ range, names }) => (
          <rect
            key={names.join()}
            x={at.edge.left}
            width={Math.max(0, width - at.edge.left - at.edge.right)}
            y={at.y(range.high)}
            height={Math.max(2, at.y(range.low) - at.y(range.high))}
            fill="var(--color-inside-fill)"
          />
        ))}
        {thumb ? null : (
          <>
            <Axes at={at} ceiling={ceiling} hasNow={now !== null} />
            <RangeNames at={at} />
          </>
        )}
        <Breaks at={at} />
        {at.runs.map((run) => (
          <path key={run[0]?.at} d={path(run) ?? ""} fill="none" stroke="var(--color-ink)" strokeWidth={thumb ? 1.5 : 3} strokeLinejoin="round" />
        ))}
        <Moments at={at} thumb={thumb} />
        {thumb ? null : <BreakLengths at={at} />}
        {now ? <line x1={at.x(now)} x2={at.x(now)} y1={at.edge.top} y2={at.foot} stroke="var(--color-ink)" strokeWidth={1} /> : null}
        <Foresight at={at} />
        <Readings at={at} thumb={thumb} />
      </svg>
    </div>
  );
}
