"use client";

import {
  diameterAt,
  fourWays,
  good,
  innerOf,
  layerFills,
  levelFor,
  parseDensity,
  parseLength,
  parseMass,
  SHELF_FIELDS,
  USUAL_WAX_DENSITY,
  wickPlaces,
  writeNumber,
} from "@hearth/core";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo, useState, useTransition } from "react";
import { Field, orNothing, untouched, useFields } from "@/forms/fields";
import { usePlace } from "@/log/place";
import type { Shelf } from "@/server/shelf";
import { JarSection } from "@/ui/jar-section";
import { Warn } from "@/ui/margin";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { Worked } from "@/ui/working";
import { saveOnShelf } from "./commands";

type Vessel = Shelf["vessels"][number];
const WAYS = { stated: "stated", working: "working", water: "by water", geometry: "by its measures" } as const;

/** Where the wicks stand, seen from above, in millimetres. */
export function WickPlan({ diameter, count, scale }: { diameter: number; count: 1 | 2 | 3; scale: number }) {
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

/** A vessel's fill four ways, its layers, and where its wicks stand. */
export function VesselPanel({ vessel, waxes, wickShelf }: { vessel: Vessel; waxes: Shelf["waxes"]; wickShelf: Shelf["wicks"] }) {
  const units = useUnits();
  const router = useRouter();
  const place = usePlace();
  const [said, setSaid] = useState("");
  const [busy, start] = useTransition();
  const dense = waxes.filter((one) => one.setDensity !== null);
  const [waxId, setWaxId] = useState(dense[0]?.id ?? "");
  const [layers, setLayers] = useState(3);
  const [wicks, setWicks] = useState<1 | 2 | 3>(vessel.wicks === 3 ? 3 : vessel.wicks === 2 ? 2 : 1);
  const chosen = dense.find((one) => one.id === waxId);
  const rules = useMemo(
    () => ({
      density: { initial: writeNumber(chosen?.setDensity ? chosen.setDensity / 1e6 : USUAL_WAX_DENSITY, 4), parse: parseDensity },
      headspace: {
        initial: writeNumber(vessel.headspaceUm / 1_000, 3),
        parse: (text: string) => parseLength(text, { least: 0, most: vessel.heightUm / 1_000 - 1 }),
      },
      water: untouched(
        orNothing({
          initial: vessel.waterMg === null ? "" : units.about(vessel.waterMg),
          parse: (text: string) => parseMass(text, { unit: units.mass, most: 100_000_000 }),
        }),
        vessel.waterMg,
      ),
      waterTo: { initial: vessel.waterTo as string, parse: (text: string) => good(text === "rim" ? ("rim" as const) : ("line" as const)) },
    }),
    [chosen?.setDensity, vessel, units],
  );
  const fields = useFields(rules);
  const density = (fields.values.density ?? USUAL_WAX_DENSITY * 1e6) / 1e6;
  const inner = innerOf(vessel);
  const headspaceUm = fields.values.headspace ?? vessel.headspaceUm;
  const waterMg = fields.values.water === undefined ? vessel.waterMg : fields.values.water;
  const waterTo = fields.values.waterTo ?? vessel.waterTo;
  /** Keeps what was measured here, and a fill found from it where one is taken. */
  const keep = (workingFillMg: number) => {
    const all = fields.check();
    if (!all) return;
    start(async () => {
      const values = {
        ...Object.fromEntries(SHELF_FIELDS.vessel.map((field) => [field.key, vessel[field.key as keyof Vessel]])),
        headspaceUm,
        waterMg,
        waterTo,
        workingFillMg,
      };
      const outcome = await saveOnShelf(place, { kind: "vessel", id: vessel.id, expectedVersion: vessel.version, values }).catch(() => null);
      setSaid(!outcome ? "The program cannot be reached just now. Nothing you typed is lost: try again." : outcome.ok ? "" : outcome.message);
      if (outcome?.ok) router.refresh();
    });
  };
  const measured = headspaceUm !== vessel.headspaceUm || waterMg !== vessel.waterMg || waterTo !== vessel.waterTo;
  const ways = fourWays(
    {
      statedFillMg: vessel.statedFillMg,
      workingFillMg: vessel.workingFillMg,
      soldByWeight: vessel.soldByWeight,
      inner,
      headspaceMm: headspaceUm / 1_000,
      waterMg,
      waterTo,
    },
    density,
  );
  const overfull = ways.find((way) => way.way === "geometry" && way.off < -0.02);
  const level = levelFor(inner, vessel.workingFillMg / density);
  const atLine = diameterAt(inner, level);
  const scale = Math.min(2.6, 210 / Math.max(inner.height, inner.top));
  const fills = layerFills(inner, vessel.workingFillMg, layers);
  const places = wickPlaces(atLine, wicks);
  const suited = wickShelf.filter((one) => one.fromUm !== null && one.toUm !== null && one.fromUm <= atLine * 1_000 && atLine * 1_000 <= one.toUm);
  return (
    <div className="mb-8">
      <div className="grid grid-cols-1 items-start gap-6 xl:grid-cols-[minmax(0,290px)_minmax(0,1fr)]">
        <div className="sheet flex flex-col items-center">
          <JarSection {...vessel} headspaceUm={headspaceUm} fillMg={vessel.workingFillMg} wicks={wicks} scale={scale} />
          <p className="mt-1 text-[14px] text-soft">
            dashed: the line {writeNumber(headspaceUm / 1_000, 1)} mm below the rim; wax stands {writeNumber(level, 0)} mm high
          </p>
        </div>
        <section className="sheet" aria-label="Fill four ways">
          <div className="flex flex-wrap items-end justify-between gap-3">
            <h2>Fill, four ways</h2>
            <div className="grid grid-cols-2 gap-x-3">
              <div>
                <label htmlFor="of-wax" className="mb-1 block text-[15px] font-semibold">
                  Of wax
                </label>
                <select
                  id="of-wax"
                  className="entry"
                  value={waxId}
                  onChange={(event) => {
                    setWaxId(event.target.value);
                    const wax = dense.find((one) => one.id === event.target.value);
                    fields.fill({ density: writeNumber(wax?.setDensity ? wax.setDensity / 1e6 : USUAL_WAX_DENSITY, 4) });
                  }}
                >
                  {dense.map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.name}
                    </option>
                  ))}
                  <option value="">any: about 0.9</option>
                </select>
              </div>
              <Field label="Density" unit="g/ml" {...fields.bind("density")} inputMode="decimal" />
            </div>
          </div>
          <div className="mt-1 mb-2 grid grid-cols-2 items-end gap-x-3 sm:grid-cols-[1fr_1.2fr_1fr_auto]">
            <Field label="Water it holds" unit={units.mass} {...fields.bind("water")} inputMode="decimal" placeholder="not weighed" />
            <Field
              label="weighed"
              {...fields.bind("waterTo")}
              options={[
                { value: "line", label: "to the fill line" },
                { value: "rim", label: "to the rim" },
              ]}
            />
            <Field label="Headspace" unit="mm" {...fields.bind("headspace")} inputMode="decimal" />
            <button type="button" className="press mb-1 !min-h-[44px]" disabled={busy || !measured} onClick={() => keep(vessel.workingFillMg)}>
              Keep these
            </button>
          </div>
          {said ? (
            <p role="alert" className="mb-2 font-semibold text-hot">
              ▲ {said}
            </p>
          ) : null}
          <dl>
            {ways.map((way) => (
              <div key={way.way} className={`border-t border-line px-2 py-2 ${way.way === "working" ? "bg-paper" : ""}`}>
                <dt className="flex items-baseline justify-between gap-3">
                  <span className="font-semibold">{WAYS[way.way]}</span>
                  <span className="text-right whitespace-nowrap">
                    <span className="figure mr-4 text-[18px] text-soft">
                      {way.way === "working" ? "" : `${way.off >= 0 ? "+" : "−"}${writeNumber(Math.abs(way.off) * 100, 1)} %`}
                    </span>
                    {way.working.length > 0 ? (
                      <Worked steps={way.working} name="fill" label={`the fill ${WAYS[way.way]}`}>
                        <span className="figure text-[28px]">{units.about(way.fillMg)}</span>
                      </Worked>
                    ) : (
                      <span className="figure text-[28px]">{units.g(way.fillMg)}</span>
                    )}
                  </span>
                </dt>
                <dd className="flex items-start justify-between gap-4 text-[15px] text-soft">
                  <span>{way.because}</span>
                  {way.way === "water" || way.way === "geometry" ? (
                    <button
                      type="button"
                      className={press({ size: "small", className: "shrink-0" })}
                      disabled={busy}
                      onClick={() => keep(Math.round(way.fillMg / 100) * 100)}
                    >
                      Pour this
                    </button>
                  ) : null}
                </dd>
              </div>
            ))}
          </dl>
          {waterMg === null ? (
            <p className="mt-2 text-[15px] text-soft">
              By water: put the vessel on the scale, tare, fill with water to the line, and type its weight above. It is the surest way.
            </p>
          ) : null}
          {overfull ? (
            <Warn>
              By its measures only {units.about(overfull.fillMg)} fit under the headspace, {writeNumber(-overfull.off * 100, 0)} % less than the working fill:
              measure again, or fill less.
            </Warn>
          ) : null}
        </section>
      </div>
      <div className="mt-6 grid grid-cols-1 gap-6 xl:grid-cols-2">
        <section className="sheet" aria-label="Wick places">
          <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
            <h2>Wick places</h2>
            <div role="radiogroup" aria-label="Wicks" className="flex gap-2">
              {([1, 2, 3] as const).map((n) => (
                <button
                  key={n}
                  type="button"
                  role="radio"
                  aria-checked={wicks === n}
                  className={`press ${wicks === n ? "!bg-act !text-act-ink" : ""}`}
                  onClick={() => setWicks(n)}
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
                  <span className="figure text-[30px]">on centre</span>
                ) : (
                  <>
                    <span className="figure text-[30px]">{writeNumber(Math.hypot(places[0]?.x ?? 0, places[0]?.y ?? 0), 1)}</span> mm from the centre
                  </>
                )}
                {wicks === 1
                  ? ""
                  : `, ${writeNumber(Math.hypot((places[0]?.x ?? 0) - (places[1]?.x ?? 0), (places[0]?.y ?? 0) - (places[1]?.y ?? 0)), 1)} mm apart`}
              </p>
              <p className="text-[15px] text-soft">
                Inner diameter at the wax line {writeNumber(atLine, 1)} mm. {wicks === 1 ? "" : "Each stands at the centre of the slice it melts."} Which wick
                is for the burn test to say.
              </p>
              {suited.length > 0 ? (
                <p className="mt-1 text-[15px]">
                  On the shelf for this diameter: <strong>{suited.map((one) => one.name).join(", ")}</strong>
                  {wicks > 1 ? ", if it were one wick" : ""}
                </p>
              ) : null}
              <Link className="press mt-2" href={`/shelf/vessel/${vessel.id}/template?wicks=${wicks}`}>
                Centring template
              </Link>
            </div>
          </div>
        </section>
        <section className="sheet" aria-label="Half and layered fills">
          <div className="flex flex-wrap items-end justify-between gap-3">
            <h2>Half and layered fills</h2>
            <label className="text-[15px] font-semibold">
              Layers{" "}
              <select className="entry !w-[80px]" value={layers} onChange={(event) => setLayers(Number(event.target.value))}>
                {[2, 3, 4, 5, 6].map((n) => (
                  <option key={n}>{n}</option>
                ))}
              </select>
            </label>
          </div>
          <p className="mt-2">
            Half, to see how the lower half burns: <span className="figure text-[26px]">{units.about(vessel.workingFillMg / 2)}</span>
          </p>
          <ol className="mt-1" reversed>
            {[...fills].reverse().map((mg, index) => (
              <li key={fills.length - index} className="flex justify-between border-t border-line py-1">
                <span>
                  layer {fills.length - index}
                  {index === 0 ? ", the top" : index === fills.length - 1 ? ", poured first" : ""}
                </span>
                <span className="figure text-[22px]">{units.about(mg)}</span>
              </li>
            ))}
          </ol>
          <p className="mt-1 text-[14px] text-soft">
            Of equal height. Three to five hours between layers, the one before cold. A half fill never counts as a full test.
          </p>
        </section>
      </div>
    </div>
  );
}

const PAPER = { A4: 210, Letter: 215.9 } as const;

/** A centring template at its true size: the inner circle at the bottom, the places of the wicks, and a bar to check the printer by. */
export function WickTemplate({ vessel, wicks }: { vessel: Vessel; wicks: 1 | 2 | 3 }) {
  const inner = innerOf(vessel);
  const level = levelFor(inner, vessel.workingFillMg / USUAL_WAX_DENSITY);
  const line = diameterAt(inner, level);
  // A bowl has no flat bottom: the template lies on its rim.
  const base = inner.shape === "bowl" ? inner.top : inner.bottom;
  const size = Math.max(line, base) + 16;
  const height = size + 26;
  return (
    <main id="work" className="mx-auto max-w-[900px] p-6">
      <div className="unprinted mb-4 flex flex-wrap items-center gap-4">
        <h1>Centring template, {vessel.name}</h1>
        <button type="button" className="act" data-next-step onClick={() => window.print()}>
          Print at full size
        </button>
        <Link className="press" href={`/shelf/vessel/${vessel.id}`}>
          Back to the vessel
        </Link>
      </div>
      {size > PAPER.A4 - 20 ? <Warn>This vessel is wider than a sheet of A4 or Letter: print it on larger paper, or in parts.</Warn> : null}
      <div className="overflow-x-auto print:overflow-visible">
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
            <path d="M0 0 H50 M0 -2 V2 M50 -2 V2 M10 -1 V1 M20 -1 V1 M30 -1 V1 M40 -1 V1" stroke="black" strokeWidth={0.4} fill="none" />
            <text x={25} y={6} textAnchor="middle">
              this bar is 50 mm
            </text>
            <text x={25} y={12} textAnchor="middle">
              {vessel.name}, {writeNumber(line, 1)} mm at the wax line
            </text>
          </g>
        </svg>
      </div>
      <p className="unprinted mt-4 max-w-[620px] text-soft">
        Print at 100 %, without “fit to page”, and hold a ruler to the bar before you cut. The full circle is the{" "}
        {inner.shape === "bowl" ? "rim" : "bottom, the dashed one the wax line, both"} inside; a dashed ring is a 12 mm wick foot.
      </p>
    </main>
  );
}
