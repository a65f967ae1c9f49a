"use client";

import { levelFor, type Place, type Severity, volumeTo } from "@hearth/core";
import { useUnits } from "./units";

interface JarSectionProps {
  /** Inner measures in micrometres. */
  innerTopUm: number;
  innerBottomUm: number;
  heightUm: number;
  fillMg: number;
  name: string;
  /** Pixels for a millimetre; one scale serves all the jars of a row. */
  scale: number;
  flaws?: { place: Place; severity: Severity; safety: boolean }[];
  /** Where flaws are being marked: the place chosen, and what a tap on another does. */
  place?: Place | null;
  onPlace?: (place: Place) => void;
}

/** Set wax for the drawing: about 0.9 g/ml, common practice, no source. */
const WAX_G_PER_ML = 0.9;

/** A vessel in cross-section, to scale from its inner measures: wall, fill, headspace, wick, flaws where they are. */
export function JarSection({ innerTopUm, innerBottomUm, heightUm, fillMg, name, scale, flaws = [], place = null, onPlace }: JarSectionProps) {
  const units = useUnits();
  const inner = { top: innerTopUm / 1_000, bottom: innerBottomUm / 1_000, height: heightUm / 1_000 };
  const volume = fillMg / WAX_G_PER_ML;
  const level = levelFor(inner, volume);
  const overfull = volume > volumeTo(inner, inner.height) * 1.001;
  const wall = 3;
  const px = (mm: number) => mm * scale;
  const room = onPlace ? 56 : 12;
  const width = px(Math.max(inner.top, inner.bottom) + wall * 2) + 2 * room;
  const height = px(inner.height + wall) + 30;
  const middle = width / 2;
  const floor = height - px(wall) - 2;
  const half = (mm: number) => px(inner.bottom + (inner.top - inner.bottom) * (mm / inner.height)) / 2;
  const at = (mm: number, side: -1 | 1): [number, number] => [middle + side * half(mm), floor - px(mm)];
  const poly = (points: [number, number][]) => points.map((point) => point.map((value) => value.toFixed(1)).join(",")).join(" ");
  const rim = at(inner.height, -1)[1];
  const surface = floor - px(level);
  const spots: Record<Place, [number, number]> = {
    top: [middle + half(level) * 0.55, surface],
    side: [middle - half(level / 2), floor - px(level / 2)],
    bottom: [middle, floor - 4],
    wick: [middle, surface - 10],
  };
  // The places to tap lie side by side, also on a flat cup: the wall to its left, the bottom below it.
  const zones: Record<Place, { x: number; y: number; w: number; h: number }> = {
    top: { x: middle + 16, y: surface - 28, w: half(level) - 18, h: 48 },
    side: { x: middle - half(level) - 46, y: surface + 2, w: 58, h: floor - surface - 4 },
    bottom: { x: middle - half(0), y: floor, w: half(0) * 2, h: 44 },
    wick: { x: middle - 30, y: surface - 52, w: 44, h: 72 },
  };
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`${name}, filled with ${units.g(fillMg)}${overfull ? ", more than it holds" : ""}`}
      className={`block overflow-visible ${onPlace ? "mb-11" : ""}`}
    >
      <polygon points={poly([at(0, -1), at(level, -1), at(level, 1), at(0, 1)])} fill="var(--color-wax)" />
      <line x1={middle - half(level)} x2={middle + half(level)} y1={surface} y2={surface} stroke="var(--color-ink)" strokeWidth={2} />
      <polyline
        points={poly([[at(inner.height, -1)[0], rim], at(0, -1), at(0, 1), [at(inner.height, 1)[0], rim]])}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={Math.max(2.5, px(wall) * 0.6)}
        strokeLinejoin="round"
        opacity={0.85}
      />
      <line x1={middle} x2={middle} y1={floor} y2={surface - Math.max(8, px(6))} stroke="var(--color-ink)" strokeWidth={2} />
      <rect x={middle - 5} y={floor - 3} width={10} height={3} fill="var(--color-ink)" />
      {overfull ? (
        <text x={middle} y={rim - 8} textAnchor="middle" fontSize={13} fontWeight={700} fill="var(--color-hot)">
          ▲ over the rim
        </text>
      ) : null}
      {flaws.map((flaw, index) => {
        const [x, y] = spots[flaw.place];
        const shift = flaws.slice(0, index).filter((other) => other.place === flaw.place).length * 14;
        const size = flaw.severity === "bad" ? 10 : flaw.severity === "plain" ? 8 : 6;
        const tone = flaw.safety ? "var(--color-safety)" : "var(--color-ink)";
        return (
          <g key={`${flaw.place}${index}`} transform={`translate(${x + shift} ${y})`}>
            <line x1={-size} y1={-size} x2={size} y2={size} stroke={tone} strokeWidth={4} />
            <line x1={size} y1={-size} x2={-size} y2={size} stroke={tone} strokeWidth={4} />
          </g>
        );
      })}
      {onPlace
        ? (Object.keys(zones) as Place[]).map((key) => (
            // biome-ignore lint/a11y/noStaticElementInteractions: the radio buttons beside the drawing do the same by keyboard
            <rect
              key={key}
              data-place={key}
              x={zones[key].x}
              y={zones[key].y}
              width={Math.max(20, zones[key].w)}
              height={zones[key].h}
              fill={place === key ? "var(--color-act)" : "transparent"}
              fillOpacity={0.45}
              stroke="var(--color-ink)"
              strokeDasharray="4 4"
              strokeWidth={place === key ? 3 : 1.25}
              className="cursor-pointer"
              onClick={() => onPlace(key)}
            />
          ))
        : null}
    </svg>
  );
}

/** The pixels a millimetre may take so that the tallest of a row fits into `height`. */
export const commonScale = (vessels: { heightUm: number; innerTopUm: number }[], height: number): number =>
  Math.min(1.6, (height - 34) / Math.max(20, ...vessels.map((one) => one.heightUm / 1_000 + 3)));
