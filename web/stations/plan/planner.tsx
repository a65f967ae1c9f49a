"use client";

import { amountsFor, componentsOf, type FormulaSpec, good, parseCount, parsePercent, type Scaled, ScaleError, writeNumber, writePercent } from "@hearth/core";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { Field, type FieldRule, useFields } from "@/ui/fields";
import { commonScale, JarSection } from "@/ui/jar-section";
import { Aside, Caution, Empty, Screen, Warn } from "@/ui/margin";
import { PotStrip } from "@/ui/pot-strip";
import { useUnits } from "@/ui/units";
import { Worked } from "@/ui/working";
import type { Shelf } from "../shelf/read";
import { startBatch } from "./commands";

export interface PlanFormula {
  id: string;
  name: string;
  versionId: string;
  number: number;
  spec: FormulaSpec;
}

const count = {
  initial: "",
  parse: (text: string) => (text.trim() === "" ? good(0) : parseCount(text, { least: 0, most: 100_000, name: "jars" })),
} satisfies FieldRule<number>;

/** Works out what to weigh for the vessels chosen, and starts the batch. */
export function Planner({ formulas, chosen, shelf }: { formulas: { id: string; name: string }[]; chosen: PlanFormula | null; shelf: Shelf }) {
  const units = useUnits();
  const router = useRouter();
  const [batchId] = useState(() => v7());
  const [said, setSaid] = useState("");
  const [busy, start] = useTransition();
  const scales = shelf.instruments.filter((one) => one.kind === "scale" && one.resolutionUg);
  const rules = useMemo(
    () => ({
      spare: { initial: "5", parse: (text: string) => parsePercent(text, { least: 0, most: 100, name: "a spare" }) },
      scale: { initial: String(scales[0]?.resolutionUg ?? 1_000_000), parse: (text: string) => good(Number(text)) },
      ...Object.fromEntries(shelf.vessels.map((vessel) => [`count:${vessel.id}`, count])),
    }),
    [shelf.vessels, scales[0]?.resolutionUg],
  );
  const fields = useFields(rules as Record<string, FieldRule<number>>);
  const resolution = fields.values.scale ?? 1_000_000;

  const wax = shelf.waxes.find((one) => one.id === chosen?.spec.waxes[0]?.id) ?? null;
  const oil = shelf.fragrances.find((one) => one.id === chosen?.spec.fragrances[0]?.id) ?? null;
  const picked = shelf.vessels.flatMap((vessel) => {
    const n = fields.values[`count:${vessel.id}`] ?? 0;
    return n > 0 ? [{ vessel, count: n }] : [];
  });
  let scaled: Scaled | null = null;
  let fault = "";
  if (chosen && wax && picked.length > 0 && fields.values.spare !== undefined) {
    try {
      scaled = amountsFor(
        chosen.spec,
        { wax, fragrance: oil },
        picked.map((one) => ({ name: one.vessel.name, fillMg: one.vessel.workingFillMg, count: one.count })),
        fields.values.spare,
        resolution,
      );
    } catch (error) {
      if (!(error instanceof ScaleError)) throw error;
      fault = error.message;
    }
  }
  const short = picked.filter(({ vessel }) => vessel.soldByWeight && vessel.workingFillMg < vessel.statedFillMg);
  const px = commonScale(shelf.vessels, 110);

  const begin = () => {
    if (!chosen) return;
    if (!fields.check()) return;
    if (picked.length === 0) return setSaid("Type a count for at least one vessel.");
    start(async () => {
      const outcome = await startBatch({
        batchId,
        formulaVersionId: chosen.versionId,
        vessels: picked.map((one) => ({ id: one.vessel.id, count: one.count })),
        sparePpm: fields.values.spare,
        resolutionUg: resolution,
      }).catch(() => null);
      if (!outcome) return setSaid("The program cannot be reached just now. Nothing you typed is lost: try again in a moment.");
      if (!outcome.ok) return setSaid(outcome.message);
      router.push(`/bench/${outcome.value.id}`);
    });
  };

  if (formulas.length === 0) {
    return (
      <Screen title="Plan a batch">
        <Empty
          title="No formula to plan from"
          action={
            <Link className="act" data-next-step href="/formulas/new">
              Make a formula
            </Link>
          }
        >
          <p>A batch is worked out from a formula: how much wax and fragrance for how many of which vessels.</p>
        </Empty>
      </Screen>
    );
  }
  if (shelf.vessels.length === 0) {
    return (
      <Screen title="Plan a batch">
        <Empty
          title="No vessel to fill"
          action={
            <Link className="act" data-next-step href="/shelf">
              Go to the shelf
            </Link>
          }
        >
          <p>Put the jars and cups you fill on the shelf, with their fill weights. Then the amounts follow from how many of each you want.</p>
        </Empty>
      </Screen>
    );
  }
  return (
    <Screen
      title="Plan a batch"
      lead={chosen ? `${chosen.name}, version ${chosen.number}: ${writePercent(chosen.spec.loadPpm)} of the ${chosen.spec.basis}` : "Choose a formula first."}
      side={
        <>
          {fault ? <Warn>{fault}</Warn> : null}
          {short.map(({ vessel }) => (
            <Warn key={vessel.id}>
              {vessel.name} is sold by weight but filled to {units.g(vessel.workingFillMg)}, below its stated {units.g(vessel.statedFillMg)}. A buyer would be
              short-changed.
            </Warn>
          ))}
          {scaled?.warnings.map((warning) =>
            warning.code === "no-spare" || warning.code === "between-marks" ? (
              <Aside key={warning.code} title={warning.code === "no-spare" ? "Spare" : "Between two marks"}>
                {warning.message}
              </Aside>
            ) : (
              <Warn key={warning.code}>{warning.message}</Warn>
            ),
          )}
          <Aside title="Weigh, never measure">Everything here is by weight. A fluid ounce of oil is not an ounce.</Aside>
          <Caution title="Before you melt">
            Wipe vessels with alcohol and let it dry completely: it burns. A cracked jar is thrown away. Grease-fire extinguisher at hand.
          </Caution>
        </>
      }
    >
      <form
        ref={fields.form}
        className="grid grid-cols-1 gap-6 xl:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]"
        onSubmit={(event) => {
          event.preventDefault();
          begin();
        }}
      >
        <section className="sheet">
          <label htmlFor="formula" className="mb-1 block text-[15px] font-semibold">
            Formula
          </label>
          <select id="formula" className="entry" value={chosen?.id ?? ""} onChange={(event) => router.push(`/plan?formula=${event.target.value}`)}>
            {chosen ? null : <option value="">choose</option>}
            {formulas.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
          <h2 className="mt-4">How many of which</h2>
          <ul>
            {shelf.vessels.map((vessel) => (
              <li key={vessel.id} className="grid grid-cols-[84px_1fr_96px] sm:grid-cols-[120px_1fr_110px] items-end gap-4 border-b border-line py-2">
                <JarSection {...vessel} fillMg={vessel.workingFillMg} scale={px} />
                <div className="pb-2">
                  <div className="font-bold">{vessel.name}</div>
                  <span className="figure text-[20px]">{units.g(vessel.workingFillMg)}</span> <span className="text-soft">each</span>
                </div>
                <Field label="Count" {...fields.bind(`count:${vessel.id}`)} inputMode="numeric" placeholder="0" />
              </li>
            ))}
          </ul>
          <div className="mt-3 grid grid-cols-2 gap-4">
            <Field label="Spare" unit="%" {...fields.bind("spare")} inputMode="decimal" hint="For the pitcher and the top-up." />
            <Field
              label="Scale"
              {...fields.bind("scale")}
              options={
                scales.length
                  ? scales.map((one) => ({ value: String(one.resolutionUg), label: `${one.name} (${units.g((one.resolutionUg ?? 0) / 1_000)})` }))
                  : [
                      { value: "1000000", label: "1 g steps" },
                      { value: "100000", label: "0.1 g steps" },
                      { value: "2834952", label: "0.1 oz steps" },
                    ]
              }
            />
          </div>
        </section>
        <section className="sheet" aria-live="polite">
          <h2>To weigh</h2>
          {scaled && wax ? (
            <>
              <dl className="mt-2">
                {[{ name: "wax", label: wax.name, mg: scaled.waxMg }, ...(oil ? [{ name: "fragrance", label: oil.name, mg: scaled.fragranceMg }] : [])].map(
                  (row) => (
                    <div key={row.name} className="border-b border-line py-2">
                      <dt className="text-soft">{row.label}</dt>
                      <dd>
                        <Worked steps={scaled.working} name={row.name} label={row.label}>
                          <span className="figure text-[64px] leading-none">{units.gParts(row.mg, resolution).figure}</span>
                          <span className="figure text-[26px]"> {units.mass}</span>
                        </Worked>
                      </dd>
                    </div>
                  ),
                )}
                <div className="flex items-baseline justify-between border-b border-line py-2">
                  <dt className="text-soft">total in the pot</dt>
                  <dd>
                    <Worked steps={scaled.working} name="total" label="the total">
                      <span className="figure text-[30px]">{units.g(scaled.totalMg, resolution)}</span>
                    </Worked>
                  </dd>
                </div>
                <div className="flex items-baseline justify-between border-b border-line py-2">
                  <dt className="text-soft">load really weighed</dt>
                  <dd className="text-right">
                    <Worked steps={scaled.working} name="load of the wax" label="the load of the wax">
                      <span className="figure text-[24px]">{writeNumber(scaled.loadPercentOfWax, 2)} %</span>
                    </Worked>{" "}
                    of the wax
                    <br />
                    <Worked steps={scaled.working} name="load of the total" label="the load of the total">
                      <span className="figure text-[24px]">{writeNumber(scaled.loadPercentOfTotal, 2)} %</span>
                    </Worked>{" "}
                    of the total
                  </dd>
                </div>
              </dl>
              <div className="mt-3">
                <PotStrip
                  parts={componentsOf(scaled, { wax, fragrance: oil }).map((part) => ({ name: part.name, kind: part.kind, mg: part.mg }))}
                  resolutionUg={resolution}
                />
              </div>
            </>
          ) : (
            <p className="mt-2 text-soft">
              {chosen ? "Type how many of each vessel, and the weights appear here as you type." : "Choose a formula, then how many of each vessel."}
            </p>
          )}
          {said ? (
            <p role="alert" className="mt-3 font-semibold text-hot">
              ▲ {said}
            </p>
          ) : null}
          <button type="submit" className="act mt-4 w-full" data-next-step disabled={busy || !chosen}>
            {busy ? "Starting" : "Start the batch"}
          </button>
        </section>
      </form>
    </Screen>
  );
}
