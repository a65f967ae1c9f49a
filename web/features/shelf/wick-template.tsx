"use client";

import { cubicMmOf, DEFAULT_WAX_DENSITY, diameterAt, innerOf, levelFor, wickPlaces } from "@hearth/core";
import type { Shelf } from "@/server/inventory/shelf";
import { Link } from "@/ui/address";
import { Warn } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import type { WickCount } from "./wick-places";

const PAPER = { A4: 210, Letter: 215.9 } as const;

/** A centring template at its true size: the inner circle at the bottom, the places of the wicks, and a bar to check the printer by. */
export function WickTemplate({ vessel, wicks }: { vessel: Shelf["vessels"][number]; wicks: WickCount }) {
  const units = useUnits();
  const inner = innerOf(vessel);
  const level = levelFor(inner, cubicMmOf(vessel.workingFillMg, DEFAULT_WAX_DENSITY));
  const line = diameterAt(inner, level);
  // A bowl has no flat bottom: the template lies on its rim.
  const base = inner.shape === "bowl" ? inner.top : inner.bottom;
  const size = Math.max(line, base) + 16;
  const height = size + 26;
  return (
    <main id="work" className="mx-auto max-w-[900px] p-6">
      <div className="unprinted mb-4 flex flex-wrap items-center gap-4">
        <h1>Centring template, {vessel.name}</h1>
        <button type="button" className="action-button" data-next-step onClick={() => window.print()}>
          Print at full size
        </button>
        <Link className="press" href={`/shelf/vessel/${vessel.id}`}>
          Back to the vessel
        </Link>
      </div>
      {size > PAPER.A4 - 20 ? <Warn>This vessel is wider than a sheet of A4 or Letter: print it on larger paper, or in parts.</Warn> : null}
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: on a narrow screen it is scrolled, also with the keys. */}
      <section aria-label="The template" tabIndex={0} className="overflow-x-auto print:overflow-visible">
        <svg
          width={`${size}mm`}
          height={`${height}mm`}
          viewBox={`${-size / 2} ${-size / 2} ${size} ${height}`}
          role="img"
          aria-label={`Template for ${wicks} ${wicks === 1 ? "wick" : "wicks"}, true size`}
        >
          <circle r={base / 2} fill="none" stroke="black" strokeWidth={0.4} data-mm={base} />
          {inner.shape === "bowl" ? null : <circle r={line / 2} fill="none" stroke="black" strokeWidth={0.25} strokeDasharray="2 1.5" />}
          <g stroke="black" strokeWidth={0.15}>
            <line x1={-size / 2 + 4} x2={size / 2 - 4} />
            <line y1={-size / 2 + 4} y2={size / 2 - 4} />
          </g>
          {wickPlaces(line, wicks).map((place) => (
            <g key={`${place.x} ${place.y}`} transform={`translate(${place.x} ${-place.y})`} stroke="black" strokeWidth={0.3} fill="none">
              <circle r={6} strokeDasharray="1 1" />
              <circle r={1.25} fill="black" />
              <path d="M-4 0 H4 M0 -4 V4" />
            </g>
          ))}
          <g transform={`translate(-25 ${size / 2 + 8})`} fontSize={4} fontFamily="var(--font-text)">
            {units.length === "mm" ? (
              <path d="M0 0 H50 M0 -2 V2 M50 -2 V2 M10 -1 V1 M20 -1 V1 M30 -1 V1 M40 -1 V1" stroke="black" strokeWidth={0.4} fill="none" />
            ) : (
              <path d="M-0.4 0 H50.4 M-0.4 -2 V2 M50.4 -2 V2 M25 -2 V2 M12.3 -1 V1 M37.7 -1 V1" stroke="black" strokeWidth={0.4} fill="none" />
            )}
            <text x={25} y={6} textAnchor="middle">
              this bar is {units.length === "mm" ? "50 mm" : "2 in"}
            </text>
            <text x={25} y={12} textAnchor="middle">
              {vessel.name}, {units.len(line * 1_000)} at the wax line
            </text>
          </g>
        </svg>
      </section>
      <p className="unprinted mt-4 max-w-[620px] text-soft">
        Print at 100 %, without “fit to page”, and hold a ruler to the bar before you cut. The full circle is the{" "}
        {inner.shape === "bowl" ? "rim" : "bottom, the dashed one the wax line, both"} inside; a dashed ring is a wick foot of {units.len(12_000)}.
      </p>
    </main>
  );
}
