"use client";

import { cubicMmOf, DEFAULT_WAX_DENSITY, diameterAt, innerOf, levelFor, type TestCandle, wickPlaces } from "@hearth/core";
import type { PointerEvent } from "react";
import { Toggle } from "@/ui/toggle";
import { useUnits } from "@/ui/units";
import { tappedPool } from "./model";

const SIZE = 168;
const R = 72;

/** The jar from above: its wall, its wicks, and how far the melt pool reaches. A tap says how far. */
export function FromAbove({
  testCandle,
  widthUm,
  poolUm,
  onPool,
}: {
  testCandle: TestCandle;
  widthUm: number;
  poolUm: number | undefined;
  onPool?: (um: number) => void;
}) {
  const units = useUnits();
  const center = SIZE / 2;
  const wicks = testCandle.wick?.count ?? 1;
  const places = wickPlaces(2 * R, wicks >= 3 ? 3 : wicks === 2 ? 2 : 1);
  const tap = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const scale = SIZE / box.width;
    const [x, y] = [(event.clientX - box.left) * scale - center, (event.clientY - box.top) * scale - center];
    onPool?.(tappedPool(Math.hypot(x, y), R, widthUm));
  };
  const r = poolUm === undefined ? 0 : Math.min(1, poolUm / widthUm) * R;
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      className={`block w-full max-w-[220px] touch-none ${onPool ? "cursor-crosshair" : ""}`}
      role="img"
      aria-label={`From above: ${poolUm === undefined ? "the pool is not measured" : `the pool is ${units.len(poolUm)} wide`}, the jar ${units.len(widthUm)}`}
      onPointerDown={onPool ? tap : undefined}
      onPointerMove={onPool ? (event) => event.buttons > 0 && tap(event) : undefined}
    >
      <circle cx={center} cy={center} r={R} fill="var(--color-wax)" stroke="var(--color-ink)" strokeWidth={4} />
      {[0.25, 0.5, 0.75].map((share) => (
        <circle key={share} cx={center} cy={center} r={R * share} fill="none" stroke="var(--color-line)" strokeDasharray="3 4" />
      ))}
      {r > 0 ? <circle cx={center} cy={center} r={r} fill="var(--color-action)" fillOpacity={0.55} stroke="var(--color-ink)" strokeWidth={2} /> : null}
      {places.map((place) => (
        <circle key={`${place.x} ${place.y}`} cx={center + place.x} cy={center - place.y} r={4} fill="var(--color-ink)" />
      ))}
    </svg>
  );
}

/** The jar from the side, as it stands now: what is left of the wax, and how deep the pool is. A tap says how deep. */
export function FromSide({
  testCandle,
  left,
  poolUm,
  depthUm,
  onDepth,
}: {
  testCandle: TestCandle;
  left: number;
  poolUm: number | undefined;
  depthUm: number | undefined;
  onDepth?: (um: number) => void;
}) {
  const units = useUnits();
  const inner = innerOf(testCandle);
  const level = levelFor(inner, cubicMmOf(testCandle.fillMg, DEFAULT_WAX_DENSITY) * left);
  const scale = Math.min((SIZE - 26) / Math.max(inner.top, inner.bottom), (SIZE - 26) / inner.height);
  const middle = SIZE / 2;
  const floor = SIZE - 8;
  const y = (mm: number) => floor - mm * scale;
  const half = (mm: number) => (diameterAt(inner, mm) / 2) * scale;
  const steps = inner.shape === "bowl" ? Array.from({ length: 13 }, (_, index) => index / 12) : [0, 1];
  const wall = (side: -1 | 1, to: number) => steps.map((share) => `${(middle + side * half(share * to)).toFixed(1)},${y(share * to).toFixed(1)}`);
  const depth = (depthUm ?? 0) / 1_000;
  const pool = poolUm === undefined ? half(level) : Math.min(half(level), (poolUm / 2_000) * scale);
  const tap = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const at = (event.clientY - box.top) * (SIZE / box.height);
    onDepth?.(Math.max(0, Math.min(Math.round(level), Math.round((at - y(level)) / scale))) * 1_000);
  };
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      className={`block w-full max-w-[220px] touch-none ${onDepth ? "cursor-crosshair" : ""}`}
      role="img"
      aria-label={`From the side: ${depthUm === undefined ? "the depth of the pool is not measured" : `the pool is ${units.len(depthUm)} deep`}`}
      onPointerDown={onDepth ? tap : undefined}
    >
      <polygon points={[...wall(-1, level), ...wall(1, level).reverse()].join(" ")} fill="var(--color-wax)" />
      {depth > 0 ? (
        <path
          d={`M${middle - pool} ${y(level)} L${middle + pool} ${y(level)} Q${middle + pool} ${y(level - depth)} ${middle} ${y(level - depth)} Q${middle - pool} ${y(level - depth)} ${middle - pool} ${y(level)} Z`}
          fill="var(--color-action)"
          fillOpacity={0.55}
          stroke="var(--color-ink)"
          strokeWidth={1.5}
        />
      ) : null}
      <line x1={middle - half(level)} x2={middle + half(level)} y1={y(level)} y2={y(level)} stroke="var(--color-ink)" strokeWidth={2} />
      <polyline
        points={[...wall(-1, inner.height).reverse(), ...wall(1, inner.height)].join(" ")}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={4}
        strokeLinejoin="round"
      />
      <line x1={middle} x2={middle} y1={floor} y2={y(level) - 8} stroke="var(--color-ink)" strokeWidth={2.5} />
    </svg>
  );
}

const COLUMNS: Record<number, string> = { 2: "grid-cols-2", 4: "grid-cols-4", 5: "grid-cols-5" };

/** A button for one of a few observations, large enough for a thumb; a second tap clears it. */
export function Seen<T extends string>({
  label,
  of,
  value,
  onValue,
  words,
}: {
  label: string;
  of: readonly T[];
  value: T | undefined;
  onValue: (value: T | undefined) => void;
  words?: Partial<Record<T, string>>;
}) {
  return (
    <fieldset className="mt-3">
      <legend className="font-semibold">{label}</legend>
      <div className={`mt-1 grid gap-1 ${COLUMNS[of.length] ?? "grid-cols-3"}`}>
        {of.map((item) => (
          <Toggle key={item} on={value === item} onPress={() => onValue(value === item ? undefined : item)} className="min-w-0 !px-1">
            {words?.[item] ?? item}
          </Toggle>
        ))}
      </div>
    </fieldset>
  );
}
