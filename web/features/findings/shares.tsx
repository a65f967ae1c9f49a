"use client";

import type { Share } from "@hearth/core";
import { formatShares } from "@/ui/logged";
import { type Formats, useUnits } from "@/ui/units";

/** A level in the units of the workshop: what the database grouped by is in °C. */
export const levelWords = (units: Formats, level: string) => {
  const [, from, to] = /^(-?\d+) to (-?\d+) °C$/.exec(level) ?? [];
  return from && to ? `${units.t(Number(from) * 100)} to ${units.t(Number(to) * 100)}` : level;
};

const SIDES = ["below the range", "inside the range", "above the range"];
/** As they lie on a scale, where they do; else as they came, the largest group first. */
function inOrder<T extends { level: string }>(levels: readonly T[]): readonly T[] {
  const place = ({ level }: T) => (SIDES.includes(level) ? SIDES.indexOf(level) : Number.parseFloat(level));
  return levels.every((level) => SIDES.includes(level.level) || /^-?\d+ to -?\d+/.test(level.level)) ? [...levels].sort((a, b) => place(a) - place(b)) : levels;
}

/** How often at one level: k of n. */
export interface LevelRate extends Share {
  level: string;
  n: number;
  k: number;
}

/** Rates by level, each as a mark with its 95 % interval on one scale from none to all. */
export function Shares({ levels, mark }: { levels: readonly LevelRate[]; mark?: string | undefined }) {
  const units = useUnits();
  return (
    <ul className="grid gap-y-1">
      {inOrder(levels).map((levelRate) => (
        <li key={levelRate.level} className="grid grid-cols-[minmax(0,1fr)_110px] items-center gap-x-3 text-[15px] sm:grid-cols-[140px_minmax(60px,1fr)_190px]">
          <span className={levelRate.level === mark ? "font-bold" : ""}>
            {levelRate.level === mark ? "▸ " : ""}
            {levelWords(units, levelRate.level)}
          </span>
          <svg className="max-sm:col-span-2 max-sm:row-start-2" width="100%" height="18" aria-hidden="true">
            <line x1="0" x2="100%" y1="9" y2="9" stroke="var(--color-line)" />
            <line x1={`${levelRate.low * 100}%`} x2={`${levelRate.high * 100}%`} y1="9" y2="9" stroke="var(--color-ink)" strokeWidth="3" />
            <circle cx={`${levelRate.share * 100}%`} cy="9" r="5.5" fill="var(--color-ink)" />
          </svg>
          <span className="text-right sm:text-left">
            <span className="figure text-[17px]">
              {units.n(levelRate.k, 0)} of {units.n(levelRate.n, 0)}
            </span>{" "}
            <span className="text-soft">{formatShares(units, levelRate)}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}
