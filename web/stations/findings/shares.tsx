"use client";

import type { Level, Share } from "@hearth/core";
import { sayShare } from "@/ui/recorded";
import { useUnits } from "@/ui/units";

/** Rates by level, each as a mark with its 95 % interval on one scale from none to all. */
export function Shares({ levels, mark }: { levels: readonly (Level & Share)[]; mark?: string | undefined }) {
  const units = useUnits();
  return (
    <ul className="grid gap-y-1">
      {levels.map((one) => (
        <li key={one.level} className="grid grid-cols-[minmax(0,1fr)_110px] items-center gap-x-3 text-[15px] sm:grid-cols-[190px_minmax(0,1fr)_220px]">
          <span className={one.level === mark ? "font-bold" : ""}>
            {one.level === mark ? "▸ " : ""}
            {one.level}
          </span>
          <svg className="max-sm:col-span-2 max-sm:row-start-2" width="100%" height="18" aria-hidden="true">
            <line x1="0" x2="100%" y1="9" y2="9" stroke="var(--color-line)" />
            <line x1={`${one.low * 100}%`} x2={`${one.high * 100}%`} y1="9" y2="9" stroke="var(--color-ink)" strokeWidth="3" />
            <circle cx={`${one.share * 100}%`} cy="9" r="5.5" fill="var(--color-ink)" />
          </svg>
          <span className="text-right sm:text-left">
            <span className="figure text-[17px]">
              {units.n(one.k, 0)} of {units.n(one.n, 0)}
            </span>{" "}
            <span className="text-soft">
              {sayShare(units, one.low)} to {sayShare(units, one.high)}
            </span>
          </span>
        </li>
      ))}
    </ul>
  );
}
