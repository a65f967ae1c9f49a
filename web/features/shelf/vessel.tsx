"use client";

import {
  cubicMmOf,
  DEFAULT_WAX_DENSITY,
  diameterAt,
  fourWays,
  good,
  innerOf,
  levelFor,
  parseDensity,
  parseLength,
  SHELF_FIELDS,
  writeLength,
  writeNumber,
} from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { callAction } from "@/forms/call-action";
import { Field, orNothing, untouched, useFields } from "@/forms/fields";
import { waterRule } from "@/forms/rules";
import { useWorkshop } from "@/log/workshop";
import type { Shelf } from "@/server/inventory/shelf";
import { saveOnShelf } from "@/server/inventory/shelf-save";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { JarSection } from "@/ui/jar-section";
import { Warn } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { Worked } from "@/ui/working";
import { LayerFills } from "./layer-fills";
import { type WickCount, WickPlaces } from "./wick-places";

type Vessel = Shelf["vessels"][number];
const WAYS = { stated: "stated", working: "working", water: "by water", geometry: "by its measures" } as const;

/** Shows a vessel's fill worked out in four ways, its layers, and where to place its wicks. */
export function VesselPanel({ vessel, waxes, wickShelf }: { vessel: Vessel; waxes: Shelf["waxes"]; wickShelf: Shelf["wicks"] }) {
  const units = useUnits();
  const router = useRouter();
  const workshop = useWorkshop();
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const dense = waxes.filter((wax) => wax.setDensity !== null);
  const [waxId, setWaxId] = useState(dense[0]?.id ?? "");
  const [wicks, setWicks] = useState<WickCount>(vessel.wicks === 3 ? 3 : vessel.wicks === 2 ? 2 : 1);
  const chosen = dense.find((item) => item.id === waxId);
  const rules = useMemo(
    () => ({
      density: { initial: writeNumber((chosen?.setDensity ?? DEFAULT_WAX_DENSITY) / 1e6, 4), parse: parseDensity },
      headspace: untouched(
        {
          initial: writeLength(vessel.headspaceUm, units.length, 3),
          parse: (text: string) => parseLength(text, { least: 0, most: vessel.heightUm / 1_000 - 1 }, units.length),
        },
        vessel.headspaceUm,
      ),
      water: untouched(
        orNothing(waterRule(units, { initial: vessel.waterMg === null ? "" : units.typed.about(vessel.waterMg), most: 100_000_000 })),
        vessel.waterMg,
      ),
      waterTo: { initial: vessel.waterTo as string, parse: (text: string) => good(text === "rim" ? ("rim" as const) : ("line" as const)) },
    }),
    [chosen?.setDensity, vessel, units],
  );
  const fields = useFields(rules);
  const density = fields.values.density ?? DEFAULT_WAX_DENSITY;
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
      const outcome = await callAction(saveOnShelf(workshop, { kind: "vessel", id: vessel.id, expectedVersion: vessel.version, values }));
      setMessage(outcome.ok ? "" : outcome.message);
      if (outcome.ok) router.refresh();
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
  const level = levelFor(inner, cubicMmOf(vessel.workingFillMg, density));
  const atLine = diameterAt(inner, level);
  const scale = Math.min(2.6, 210 / Math.max(inner.height, inner.top));
  return (
    <div className="mb-8">
      <div className="grid grid-cols-1 items-start gap-6 xl:grid-cols-[minmax(0,290px)_minmax(0,1fr)]">
        <div className="sheet flex flex-col items-center">
          <JarSection {...vessel} headspaceUm={headspaceUm} fillMg={vessel.workingFillMg} wicks={wicks} scale={scale} />
          <p className="mt-1 text-[14px] text-soft">
            dashed: the line {units.len(headspaceUm)} below the rim; wax stands {units.len(level * 1_000)} high
          </p>
        </div>
        <section className="sheet" aria-label="Fill weight, four methods">
          <div className="flex flex-wrap items-end justify-between gap-3">
            <h2>Fill weight, four methods</h2>
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
                    const wax = dense.find((item) => item.id === event.target.value);
                    fields.fill({ density: writeNumber((wax?.setDensity ?? DEFAULT_WAX_DENSITY) / 1e6, 4) });
                  }}
                >
                  {dense.map((item) => (
                    <option key={item.id} value={item.id}>
                      {item.name}
                    </option>
                  ))}
                  <option value="">default 0.9</option>
                </select>
              </div>
              <Field label={units.densityName} unit={units.densityUnit} {...fields.bind("density")} inputMode="decimal" />
            </div>
          </div>
          <div className="mt-1 mb-2 grid grid-cols-2 items-end gap-x-3 sm:grid-cols-[1fr_1.2fr_1fr_auto]">
            <Field label="Weight of water" unit={units.mass} {...fields.bind("water")} inputMode="decimal" placeholder="not weighed" />
            <Field
              label="weighed"
              {...fields.bind("waterTo")}
              options={[
                { value: "line", label: "to the fill line" },
                { value: "rim", label: "to the rim" },
              ]}
            />
            <Field label="Headspace" unit={units.length} {...fields.bind("headspace")} inputMode="decimal" />
            <button type="button" className="press mb-1 !min-h-[44px]" disabled={busy || !measured} onClick={() => keep(vessel.workingFillMg)}>
              Save measures
            </button>
          </div>
          <FormMessage className="mb-2">{message}</FormMessage>
          <dl>
            {ways.map((way) => (
              <div key={way.way} className={`border-t border-line px-2 py-2 ${way.way === "working" ? "bg-paper" : ""}`}>
                <dt className="flex items-baseline justify-between gap-3">
                  <span className="font-semibold">{WAYS[way.way]}</span>
                  <span className="text-right whitespace-nowrap">
                    <span className="figure mr-4 text-[18px] text-soft">
                      {way.way === "working" ? "" : `${way.off >= 0 ? "+" : "−"}${units.n(Math.abs(way.off) * 100, 1)} %`}
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
                  <span>{units.say(way.because)}</span>
                  {way.way === "water" || way.way === "geometry" ? (
                    <button
                      type="button"
                      className={press({ size: "small", className: "shrink-0" })}
                      disabled={busy}
                      onClick={() => keep(units.asShown(way.fillMg))}
                    >
                      Use this fill
                    </button>
                  ) : null}
                </dd>
              </div>
            ))}
          </dl>
          {waterMg === null ? (
            <p className="mt-2 text-[15px] text-soft">
              By water: put the vessel on the scale, tare, fill with water to the line, and type its weight above. This is the most accurate method.
            </p>
          ) : null}
          {overfull ? (
            <Warn>
              By its measures only {units.about(overfull.fillMg)} fit under the headspace, {units.n(-overfull.off * 100, 0)} % less than the fill weight:
              measure again, or fill less.
            </Warn>
          ) : null}
        </section>
      </div>
      <div className="mt-6 grid grid-cols-1 gap-6 xl:grid-cols-2">
        <WickPlaces vessel={vessel} atLine={atLine} shelf={wickShelf} wicks={wicks} onWicks={setWicks} />
        <LayerFills inner={inner} fillMg={vessel.workingFillMg} />
      </div>
    </div>
  );
}
