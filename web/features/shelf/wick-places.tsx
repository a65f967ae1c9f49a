"use client";

import { wickPlaces } from "@hearth/core";
import type { Shelf } from "@/server/inventory/shelf";
import { Link } from "@/ui/address";
import { useUnits } from "@/ui/units";

export type WickCount = 1 | 2 | 3;

/** Where the wicks stand, seen from above, in millimeters. */
function WickPlan({ diameter, count, scale }: { diameter: number; count: WickCount; scale: number }) {
  const r = (diameter / 2) * scale;
  return (
    <svg
      width={2 * r + 8}
      height={2 * r + 8}
      viewBox={`${-r - 4} ${-r - 4} ${2 * r + 8} ${2 * r + 8}`}
      role="img"
      aria-label={`${count} ${count === 1 ? "wick" : "wicks"} seen from above`}
    >
      <circle r={r} fill="var(--color-wax)" stroke="var(--color-ink)" strokeWidth={2.5} />
      {wickPlaces(diameter, count).map((place) => (
        <g key={`${place.x} ${place.y}`} transform={`translate(${place.x * scale} ${-place.y * scale})`}>
          <line x1={-7} x2={7} stroke="var(--color-ink)" strokeWidth={2} />
          <line y1={-7} y2={7} stroke="var(--color-ink)" strokeWidth={2} />
        </g>
      ))}
    </svg>
  );
}

/** Where the wicks of a vessel stand, by their count, and which of the shelf are for its diameter at the wax line. */
export function WickPlaces(props: {
  vessel: Shelf["vessels"][number];
  /** The inner diameter at the wax line, in mm. */
  atLine: number;
  shelf: Shelf["wicks"];
  wicks: WickCount;
  onWicks: (wicks: WickCount) => void;
}) {
  const { vessel, atLine, wicks, onWicks } = props;
  const units = useUnits();
  const places = wickPlaces(atLine, wicks);
  const suited = props.shelf.filter((item) => item.fromUm !== null && item.toUm !== null && item.fromUm <= atLine * 1_000 && atLine * 1_000 <= item.toUm);
  return (
    <section className="sheet" aria-label="Wick placement">
      <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
        <h2>Wick placement</h2>
        <div role="radiogroup" aria-label="Wicks" className="flex gap-2">
          {([1, 2, 3] as const).map((n) => (
            <button
              key={n}
              type="button"
              role="radio"
              aria-checked={wicks === n}
              className={`press ${wicks === n ? "!bg-action !text-action-ink" : ""}`}
              onClick={() => onWicks(n)}
            >
              {n}
            </button>
          ))}
        </div>
      </div>
      <div className="flex items-center gap-5">
        <WickPlan diameter={atLine} count={wicks} scale={Math.min(2, 150 / atLine)} />
        <div>
          <p>
            {wicks === 1 ? (
              <span className="figure text-[30px]">on center</span>
            ) : (
              <>
                <span className="figure text-[30px]">{units.len(Math.hypot(places[0]?.x ?? 0, places[0]?.y ?? 0) * 1_000)}</span> from the center
              </>
            )}
            {wicks === 1
              ? ""
              : `, ${units.len(Math.hypot((places[0]?.x ?? 0) - (places[1]?.x ?? 0), (places[0]?.y ?? 0) - (places[1]?.y ?? 0)) * 1_000)} apart`}
          </p>
          <p className="text-[15px] text-soft">
            Inner diameter at the wax line {units.len(atLine * 1_000)}. {wicks === 1 ? "" : "Each wick is centered in its share of the wax."} Confirm the wick
            with a burn test.
          </p>
          {suited.length > 0 ? (
            <p className="mt-1 text-[15px]">
              On the shelf for this diameter: <strong>{suited.map((item) => item.name).join(", ")}</strong>
              {wicks > 1 ? ", if it were one wick" : ""}
            </p>
          ) : null}
          <Link className="press mt-2" href={`/shelf/vessel/${vessel.id}/template?wicks=${wicks}`}>
            Centring template
          </Link>
        </div>
      </div>
    </section>
  );
}
