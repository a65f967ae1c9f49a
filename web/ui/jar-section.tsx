"use client";

import {
  cubicMmOf,
  DEFAULT_WAX_DENSITY,
  diameterAt,
  type Flaw,
  innerOf,
  levelFor,
  type Place,
  volumeTo,
  WALL_HEIGHTS,
  WALL_SIDES,
  type WallSpot,
  wickPlaces,
} from "@hearth/core";
import { memo } from "react";
import { useUnits } from "./units";

interface JarSectionProps {
  /** Inner measures in micrometers. */
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
  /** Pixels for a millimeter; one scale serves all the jars of a row. */
  scale: number;
  flaws?: (Pick<Flaw, "place" | "wall" | "severity" | "extent"> & { safety: boolean })[];
  /** Where flaws are being marked: the place chosen, and what a tap on another does. */
  place?: Place | null;
  wall?: WallSpot | undefined;
  onPlace?: (place: Place, wall?: WallSpot) => void;
}

/** How large a flaw is marked, in pixels: as far as it goes, or as bad as it was said to be. */
const SIZES = { slight: 6, clear: 8, severe: 10, speck: 5, patch: 7, third: 9, most: 11 } as const;
/** A wall is parted by height where a thumb still hits a third of it. */
const THIRD = 34;

/** A vessel in cross-section, to scale from its inner measures: wall, fill, headspace, wick, flaws where they are. */
export const JarSection = memo(function JarSection(props: JarSectionProps) {
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
    wall = undefined,
    onPlace,
  } = props;
  const wicks = typeof wanted === "number" ? wanted : (wanted?.count ?? 0);
  const units = useUnits();
  const inner = innerOf({ innerTopUm, innerBottomUm, heightUm, shape });
  const volume = cubicMmOf(fillMg, DEFAULT_WAX_DENSITY);
  const level = levelFor(inner, volume);
  const overfull = volume > volumeTo(inner, inner.height) * 1.001;
  const thick = 3;
  const px = (mm: number) => mm * scale;
  const room = onPlace ? 56 : 12;
  const width = px(Math.max(inner.top, inner.bottom) + thick * 2) + 2 * room;
  const height = px(inner.height + thick) + 30;
  const middle = width / 2;
  const floor = height - px(thick) - 2;
  const half = (mm: number) => px(diameterAt(inner, mm)) / 2;
  /** Returns the wall from the bottom up to a level: straight, or a bowl's curve in short pieces. */
  const levels = (to: number) => (shape === "bowl" ? Array.from({ length: 25 }, (_, index) => (to * index) / 24) : [0, to]);
  const at = (mm: number, side: -1 | 1): [number, number] => [middle + side * half(mm), floor - px(mm)];
  const poly = (points: [number, number][]) => points.map((point) => point.map((value) => value.toFixed(1)).join(",")).join(" ");
  const rim = at(inner.height, -1)[1];
  const surface = floor - px(level);
  /** In the middle of each third of the wall, from the top down. */
  const thirds = { high: level * (5 / 6), middle: level / 2, low: level / 6 } as const;
  const spotOf = (flaw: { place: Place; wall?: WallSpot | undefined }): [number, number] => {
    switch (flaw.place) {
      case "top":
        return [middle + half(level) * 0.55, surface];
      case "side": {
        const mm = thirds[flaw.wall?.height ?? "middle"];
        return [middle + (flaw.wall?.side === "right" ? 1 : -1) * half(mm), floor - px(mm)];
      }
      case "bottom":
        return [middle, floor - 4];
      case "wick":
        return [middle, surface - 10];
    }
  };
  // The places to tap lie side by side, also on a flat cup: the walls to its sides, the bottom below it.
  interface Zone {
    place: Place;
    wall?: WallSpot;
    x: number;
    y: number;
    w: number;
    h: number;
  }
  const parted = floor - surface >= 3 * THIRD;
  const walls = WALL_SIDES.flatMap((side): Zone[] => {
    const x = side === "left" ? middle - half(level) - 46 : middle + half(level) - 12;
    const tall = (floor - surface - 4) / (parted ? 3 : 1);
    return (parted ? WALL_HEIGHTS : (["middle"] as const)).map((at, n) => ({
      place: "side",
      wall: { side, height: at },
      x,
      y: surface + 2 + n * tall,
      w: 58,
      h: tall,
    }));
  });
  const zones: Zone[] = [
    { place: "top", x: middle + 16, y: surface - 28, w: half(level) - 18, h: 48 },
    ...walls,
    { place: "bottom", x: middle - half(0), y: floor, w: half(0) * 2, h: 44 },
    { place: "wick", x: middle - 30, y: surface - 52, w: 44, h: 72 },
  ];
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
        strokeWidth={Math.max(2.5, px(thick) * 0.6)}
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
        const [x, y] = spotOf(flaw);
        const at = `${flaw.place} ${flaw.wall?.side} ${flaw.wall?.height}`;
        const shift = flaws.slice(0, index).filter((other) => `${other.place} ${other.wall?.side} ${other.wall?.height}` === at).length * 14;
        const size = SIZES[flaw.extent ?? flaw.severity ?? "clear"];
        const tone = flaw.safety ? "var(--color-safety)" : "var(--color-ink)";
        return (
          <g key={`${flaw.place}${index}`} transform={`translate(${x + shift} ${y})`}>
            <line x1={-size} y1={-size} x2={size} y2={size} stroke={tone} strokeWidth={4} />
            <line x1={size} y1={-size} x2={-size} y2={size} stroke={tone} strokeWidth={4} />
          </g>
        );
      })}
      {onPlace
        ? zones.map((zone) => {
            const chosen = place === zone.place && (!zone.wall || !wall || (wall.side === zone.wall.side && wall.height === zone.wall.height));
            return (
              // biome-ignore lint/a11y/noStaticElementInteractions: the radio buttons beside the drawing do the same by keyboard
              <rect
                key={`${zone.place}${zone.wall?.side}${zone.wall?.height}`}
                data-place={zone.place}
                data-wall={zone.wall ? `${zone.wall.side} ${zone.wall.height}` : undefined}
                x={zone.x}
                y={zone.y}
                width={Math.max(20, zone.w)}
                height={zone.h}
                fill={chosen ? "var(--color-action)" : "transparent"}
                fillOpacity={0.45}
                stroke="var(--color-ink)"
                strokeDasharray="4 4"
                strokeWidth={chosen ? 3 : 1.25}
                className="cursor-pointer"
                onClick={() => onPlace(zone.place, zone.wall)}
              />
            );
          })
        : null}
    </svg>
  );
});

/** Returns the pixels a millimeter may take so that the tallest of a row fits into `height`, and the widest into `width`. */
export const commonScale = (vessels: { heightUm: number; innerTopUm: number }[], height: number, width = Number.POSITIVE_INFINITY): number =>
  Math.min(
    1.6,
    (height - 34) / Math.max(20, ...vessels.map((vessel) => vessel.heightUm / 1_000 + 3)),
    (width - 24) / Math.max(20, ...vessels.map((vessel) => vessel.innerTopUm / 1_000 + 6)),
  );
