"use client";

import { scaleLinear } from "d3-scale";
import { useMemo } from "react";
import type { CurveName, FlawCurve } from "@/server/findings/findings";
import { Picture } from "@/ui/picture";
import { useWidth } from "@/ui/size";
import { SizedSvg } from "@/ui/sized-svg";
import { useUnits } from "@/ui/units";

const WORDS: Record<CurveName, string> = { pour_c: "poured at", add_c: "fragrance added at", load: "real load, % of the wax", room_c: "room" };
const [HEIGHT, LEFT, RIGHT, TOP, BOTTOM] = [260, 52, 16, 12, 40];

/** A flaw's rate against a number: each group of batches as a dot as large as its jars, the fitted curve with its 95 % band. */
export function Curve({ curve, flaw, range }: { curve: FlawCurve; flaw: string; range: readonly [number, number] | null }) {
  const units = useUnits();
  const size = useWidth<HTMLDivElement>(640);
  const { width } = size;
  const warm = curve.name !== "load";
  const shown = (x: number) => (warm && units.temperature === "F" ? x * 1.8 + 32 : x);
  const unit = warm ? `°${units.temperature}` : "";
  const { x, y } = useMemo(() => {
    const xs = curve.doses.map((dose) => dose.x);
    const [low, high] = [Math.min(...xs, range?.[0] ?? Number.POSITIVE_INFINITY), Math.max(...xs, range?.[1] ?? Number.NEGATIVE_INFINITY)];
    const room = Math.max((high - low) * 0.05, 0.5);
    return {
      x: scaleLinear([low - room, high + room], [LEFT, width - RIGHT]),
      y: scaleLinear([0, 1], [HEIGHT - BOTTOM, TOP]),
    };
  }, [curve.doses, range, width]);
  const atShown = scaleLinear(x.domain().map(shown), x.range());
  const ticks = atShown.ticks(Math.max(2, Math.min(8, Math.floor(width / 80))));
  const path = (of: (item: FlawCurve["fit"][number]) => number) => curve.fit.map((item) => `${x(item.x).toFixed(1)},${y(of(item)).toFixed(1)}`).join(" ");
  return (
    <Picture
      name={`${flaw} by ${curve.name}`}
      heads={[`${WORDS[curve.name]}${unit ? `, ${unit}` : ""}`, "batches", "jars", "with the flaw"]}
      rows={curve.doses.map((dose) => [shown(dose.x), dose.batches, dose.n, dose.k])}
    >
      <SizedSvg size={size} height={HEIGHT} label={`How often ${flaw}, by ${WORDS[curve.name]}`}>
        {range ? <rect x={x(range[0])} width={x(range[1]) - x(range[0])} y={y(1)} height={y(0) - y(1)} fill="var(--color-wax)" /> : null}
        {[0, 0.25, 0.5, 0.75, 1].map((share) => (
          <g key={share}>
            <line x1={LEFT} x2={width - RIGHT} y1={y(share)} y2={y(share)} stroke="var(--color-line)" />
            <text x={LEFT - 8} y={y(share) + 5} textAnchor="end" fontSize={14} fill="var(--color-ink)">
              {share * 100} %
            </text>
          </g>
        ))}
        {ticks.map((tick) => (
          <text key={tick} x={atShown(tick)} y={HEIGHT - 20} textAnchor="middle" fontSize={14} fill="var(--color-ink)">
            {units.n(tick, ticks.every(Number.isInteger) ? 0 : 1)}
          </text>
        ))}
        <text x={width - RIGHT} y={HEIGHT - 3} textAnchor="end" fontSize={14} fill="var(--color-ink)">
          {WORDS[curve.name]}
          {unit ? `, ${unit}` : ""}
        </text>
        {curve.fit.length > 0 ? (
          <>
            <polygon
              points={`${path((item) => item.low)} ${[...curve.fit]
                .reverse()
                .map((item) => `${x(item.x).toFixed(1)},${y(item.high).toFixed(1)}`)
                .join(" ")}`}
              fill="var(--color-ink)"
              fillOpacity={0.12}
            />
            <polyline points={path((item) => item.share)} fill="none" stroke="var(--color-ink)" strokeWidth={2.5} />
          </>
        ) : null}
        {curve.doses.map((dose) => (
          <circle
            key={dose.x}
            cx={x(dose.x)}
            cy={y(dose.n > 0 ? dose.k / dose.n : 0)}
            r={Math.min(12, 2.5 + Math.sqrt(dose.n) / 3)}
            fill="none"
            stroke="var(--color-ink)"
            strokeWidth={2}
          />
        ))}
      </SizedSvg>
    </Picture>
  );
}
