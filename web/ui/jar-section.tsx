"use client";

import { cubicMmOf, diameterAt, levelFor, type Place, type Severity, USUAL_WAX_DENSITY, volumeTo, wickPlaces } from "@hearth/core";
import { useUnits } from "./units";

interface JarSectionProps {
  /** Inner measures in micrometres. */
  innerTopUm: number;
  innerBottomUm: number;
  heightUm: number;
  fillMg: number;
  shape?: "straight" | "bowl";
  /** How many, or which; none for melts. */
  wicks?: number | { count: number } | null;
  /** Shown where it is given: the fill line as the headspace sets it. */
  headspaceUm?: number | null;
  name: string;
  /** Pixels for a millimetre; one scale serves all the jars of a row. */
  scale: number;
  flaws?: { place: Place; severity: Severity; safety: boolean }[];
  /** Where flaws are being marked: the place chosen, and what a tap on another does. */
  place?: Place | null;
  onPlace?: (place: Place) => void;
}

/** A vessel in cross-section, to scale from its inner measures: wall, fill, headspace, wick, flaws where they are. */
export function JarSection(props: JarSectionProps) {
  const {
    innerTopUm,
    innerBottomUm,
    heightUm,
    fillMg,
    name,
    scale,
    shape = "straight",
    wicks: wanted = 1,
    headspaceUm = null,
    flaws = [],
    place = null,
    onPlace,
  } = props;
  const wicks = typeof wanted === "number" ? wanted : (wanted?.count ?? 0);
  const units = useUnits();
  const inner = { top: innerTopUm / 1_000, bottom: innerBottomUm / 1_000, height: heightUm / 1_000, shape };
  const volume = cubicMmOf(fillMg, USUAL_WAX_DENSITY);
  const level = levelFor(inner, volume);
  const overfull = volume > volumeTo(inner, inner.height) * 1.001;
  const wall = 3;
  const px = (mm: number) => mm * scale;
  const room = onPlace ? 56 : 12;
  const width = px(Math.max(inner.top, inner.bottom) + wall * 2) + 2 * room;
  const height = px(inner.height + wall) + 30;
  const middle = width / 2;
  const floor = height - px(wall) - 2;
  const half = (mm: number) => px(diameterAt(inner, mm)) / 2;
  /** The wall from the bottom up to a level: straight, or a bowl's curve in short pieces. */
  const levels = (to: number) => (shape === "bowl" ? Array.from({ length: 25 }, (_, index) => (to * index) / 24) : [0, to]);
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
      <polygon
        points={poly([
          ...levels(level).map((mm) => at(mm, -1)),
          ...levels(level)
            .reverse()
            .map((mm) => at(mm, 1)),
        ])}
        fill="var(--color-wax)"
      />
      <line x1={middle - half(level)} x2={middle + half(level)} y1={surface} y2={surface} stroke="var(--color-ink)" strokeWidth={2} />
      <polyline
        points={poly([
          ...levels(inner.height)
            .reverse()
            .map((mm) => at(mm, -1)),
          ...levels(inner.height).map((mm) => at(mm, 1)),
        ])}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={Math.max(2.5, px(wall) * 0.6)}
        strokeLinejoin="round"
        opacity={0.85}
      />
      {(wicks === 0 ? [] : wickPlaces(diameterAt(inner, level), wicks === 3 ? 3 : wicks === 2 ? 2 : 1)).map((wick) => {
        const x = middle + px(wick.x);
        // In a bowl a wick stands where the curve is below it.
        const foot = shape === "bowl" ? floor - px(levels(inner.height).find((mm) => half(mm) >= Math.abs(px(wick.x))) ?? 0) : floor;
        return (
          <g key={wick.x}>
            <line x1={x} x2={x} y1={foot} y2={surface - Math.max(8, px(6))} stroke="var(--color-ink)" strokeWidth={2} />
            <rect x={x - 5} y={foot - 3} width={10} height={3} fill="var(--color-ink)" />
          </g>
        );
      })}
      {headspaceUm !== null && headspaceUm > 0 ? (
        <g>
          <line
            x1={at(inner.height - headspaceUm / 1_000, -1)[0] - 10}
            x2={at(inner.height - headspaceUm / 1_000, 1)[0] + 10}
            y1={floor - px(inner.height - headspaceUm / 1_000)}
            y2={floor - px(inner.height - headspaceUm / 1_000)}
            stroke="var(--color-ink)"
            strokeWidth={1.5}
            strokeDasharray="6 4"
          />
        </g>
      ) : null}
      {overfull ? (
        <text x={middle} y={rim - 8} textAnchor="middle" fontSize={13} fontWeight={700} fill="var(--color-hot)">
          ▲ over the rim
        </text>
      ) : null}
      {flaws.map((flaw, index) => {
        const [x, y] = spots[flaw.place];
        const shift = flaws.slice(0, index).filter((other) => other.place === flaw.place).length * 14;
        const size = flaw.severity === "severe" ? 10 : flaw.severity === "clear" ? 8 : 6;
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

/** The pixels a millimetre may take so that the tallest of a row fits into `height`, and the widest into `width`. */
export const commonScale = (vessels: { heightUm: number; innerTopUm: number }[], height: number, width = Number.POSITIVE_INFINITY): number =>
  Math.min(
    1.6,
    (height - 34) / Math.max(20, ...vessels.map((one) => one.heightUm / 1_000 + 3)),
    (width - 24) / Math.max(20, ...vessels.map((one) => one.innerTopUm / 1_000 + 6)),
  );
