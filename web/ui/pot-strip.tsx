"use client";

import type { ComponentKind } from "@hearth/core";
import { useId } from "react";
import { useUnits } from "./units";

export interface PotPart {
  name: string;
  kind: ComponentKind;
  mg: number;
}

const MARKS: Record<ComponentKind, string> = { wax: "▭", additive: "▤", fragrance: "▨", dye: "▦" };

/** The contents of a pot as one bar, to scale by weight. Wax is plain, fragrance hatched, additives lined, dye solid. */
export function PotStrip({ parts, height = 54, bare = false }: { parts: PotPart[]; height?: number; bare?: boolean }) {
  const units = useUnits();
  const id = useId();
  const total = parts.reduce((sum, part) => sum + part.mg, 0);
  if (total === 0) return <div className="border-2 border-dashed border-line" style={{ height }} />;
  let left = 0;
  const shown = parts.filter((part) => part.mg > 0);
  return (
    <div>
      <svg width="100%" height={height} role="img" aria-label={shown.map((part) => `${part.name} ${units.g(part.mg)}`).join(", ")} className="block">
        <defs>
          <pattern id={id} width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width={7} height={7} fill="var(--color-sheet)" />
            <rect width={3.4} height={7} fill="var(--color-ink)" />
          </pattern>
          <pattern id={`${id}a`} width={6} height={6} patternUnits="userSpaceOnUse">
            <rect width={6} height={6} fill="var(--color-sheet)" />
            <rect width={6} height={2} fill="var(--color-ink)" />
          </pattern>
        </defs>
        {shown.map((part) => {
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
              fill={
                part.kind === "wax"
                  ? "var(--color-wax)"
                  : part.kind === "fragrance"
                    ? `url(#${id})`
                    : part.kind === "additive"
                      ? `url(#${id}a)`
                      : "var(--color-ink)"
              }
              stroke="var(--color-ink)"
              strokeWidth={2}
            />
          );
        })}
        <rect width="100%" height={height} fill="none" stroke="var(--color-ink)" strokeWidth={4} />
      </svg>
      {bare ? null : (
        <div className="mt-1 flex flex-wrap justify-between gap-x-4 text-[14px] text-soft">
          {shown.map((part) => (
            <span key={part.kind + part.name}>
              {MARKS[part.kind]} {part.name} <span className="figure text-ink">{((part.mg / total) * 100).toFixed(1)} %</span>
            </span>
          ))}
        </div>
      )}
    </div>
  );
}
