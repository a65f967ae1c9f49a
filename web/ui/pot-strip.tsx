"use client";

import { useId } from "react";
import { useUnits } from "./units";

export interface PotPart {
  name: string;
  kind: "wax" | "fragrance";
  mg: number;
}

/** The contents of a pot as one bar, to scale by weight. Wax is plain, fragrance hatched. */
export function PotStrip({
  parts,
  height = 54,
  resolutionUg = null,
  bare = false,
}: {
  parts: PotPart[];
  height?: number;
  resolutionUg?: number | null;
  bare?: boolean;
}) {
  const units = useUnits();
  const id = useId();
  const total = parts.reduce((sum, part) => sum + part.mg, 0);
  if (total === 0) return <div className="border-2 border-dashed border-line" style={{ height }} />;
  let left = 0;
  return (
    <div>
      <svg
        width="100%"
        height={height}
        role="img"
        aria-label={parts.map((part) => `${part.name} ${units.g(part.mg, resolutionUg)}`).join(", ")}
        className="block"
      >
        <defs>
          <pattern id={id} width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width={7} height={7} fill="var(--color-sheet)" />
            <rect width={3.4} height={7} fill="var(--color-ink)" />
          </pattern>
        </defs>
        {parts.map((part) => {
          const share = (part.mg / total) * 100;
          const x = left;
          left += share;
          return (
            <rect
              key={part.kind + part.name}
              x={`${x}%`}
              width={`${share}%`}
              y={0}
              height={height}
              fill={part.kind === "wax" ? "var(--color-wax)" : `url(#${id})`}
              stroke="var(--color-ink)"
              strokeWidth={2}
            />
          );
        })}
        <rect width="100%" height={height} fill="none" stroke="var(--color-ink)" strokeWidth={4} />
      </svg>
      {bare ? null : (
        <div className="mt-1 flex justify-between text-[14px] text-soft">
          {parts.map((part) => (
            <span key={part.kind + part.name}>
              {part.kind === "wax" ? "▭" : "▨"} {part.name} <span className="figure text-ink">{((part.mg / total) * 100).toFixed(1)} %</span>
            </span>
          ))}
        </div>
      )}
    </div>
  );
}
