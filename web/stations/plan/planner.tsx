"use client";

import {
  type Amounts,
  amountsFor,
  costOf,
  costPerJar,
  type FillPart,
  type FormulaSpec,
  good,
  materialsOf,
  notToBeFilled,
  parseCount,
  parseMass,
  parsePart,
  parsePercent,
  ScaleError,
  stopOf,
  wouldTake,
  writePercent,
} from "@hearth/core";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { Field, type FieldRule, orNothing, useFields } from "@/ui/fields";
import { commonScale, JarSection } from "@/ui/jar-section";
import { Aside, Caution, Empty, Screen, Warn } from "@/ui/margin";
import { useUnits } from "@/ui/units";
import type { Shelf, Stocks } from "../shelf/read";
import { startBatch } from "./commands";
import { ToWeigh } from "./to-weigh";

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
const part: FieldRule<unknown> = { initial: "full", parse: parsePart };
const PARTS = ["full", "half fill", "layer 1 of 2", "layer 2 of 2", "layer 1 of 3", "layer 2 of 3", "layer 3 of 3"];

/** What the amounts begin from. */
type From = "vessels" | "wax" | "total";

/** Works out what to weigh for the vessels chosen, and starts the batch. */
export function Planner({
  formulas,
  chosen,
  shelf,
  stocks,
  counts,
}: {
  formulas: { id: string; name: string }[];
  chosen: PlanFormula | null;
  shelf: Shelf;
  stocks: Stocks;
  /** Counts to begin with, by vessel. */
  counts: Record<string, string>;
}) {
  const units = useUnits();
  const router = useRouter();
  const [batchId] = useState(() => v7());
  const [said, setSaid] = useState("");
  const [busy, start] = useTransition();
  const scales = shelf.instruments.filter((one) => one.kind === "scale" && one.resolutionUg);
  const vessels = useMemo(
    () => shelf.vessels.filter((one) => notToBeFilled(one) === null).sort((a, b) => Number(a.state === "tester") - Number(b.state === "tester")),
    [shelf.vessels],
  );
  const rules = useMemo((): Record<string, FieldRule<unknown>> => {
    const weight = { initial: "", parse: (text: string) => parseMass(text, { unit: units.mass }) };
    return {
      from: { initial: "vessels", parse: good },
      weight: orNothing(weight),
      spare: { initial: "5", parse: (text: string) => parsePercent(text, { least: 0, most: 100, name: "a spare" }) },
      scale: { initial: String(scales[0]?.resolutionUg ?? 1_000_000), parse: (text: string) => good(Number(text)) },
      stays: orNothing({ initial: "", parse: (text: string) => parseMass(text, { unit: units.mass, most: 1_000_000 }) }),
      pitcher: orNothing({ initial: "", parse: (text: string) => parseMass(text, { unit: units.mass, least: 50_000 }) }),
      ...Object.fromEntries(
        vessels.flatMap((vessel) => [
          [`count:${vessel.id}`, { ...count, initial: counts[vessel.id] ?? "" }],
          [`part:${vessel.id}`, part],
        ]),
      ),
    };
  }, [vessels, scales[0]?.resolutionUg, units.mass, counts]);
  const fields = useFields(rules);
  const v = fields.values as Record<string, unknown> & {
    from?: From;
    weight?: number | null;
    spare?: number;
    scale?: number;
    pitcher?: number | null;
    stays?: number | null;
  };
  const resolutionUg = v.scale ?? 1_000_000;
  const from = v.from ?? "vessels";

  const picked = vessels.flatMap((vessel) => {
    const n = (v[`count:${vessel.id}`] as number | undefined) ?? 0;
    return n > 0 ? [{ ...vessel, count: n, part: (v[`part:${vessel.id}`] as FillPart | null | undefined) ?? null }] : [];
  });
  const startFrom = from === "vessels" || !v.weight ? undefined : from === "wax" ? { waxMg: v.weight } : { totalMg: v.weight };
  const known = chosen ? materialsOf(chosen.spec, shelf).waxes.length > 0 : false;
  let amounts: Amounts | null = null;
  let fault = "";
  let spareMg = 0;
  if (chosen && known && (startFrom || (from === "vessels" && picked.length > 0)) && v.spare !== undefined) {
    try {
      const order = { vessels: picked, start: startFrom, sparePpm: v.spare, resolutionUg };
      amounts = amountsFor(chosen.spec, shelf, order);
      if (v.stays && !startFrom) {
        // What stays in the pitchers can itself ask for one pitcher more.
        const pitchers = (total: number) => (v.pitcher ? Math.ceil(total / v.pitcher) : 1);
        spareMg = v.stays * pitchers(amounts.totalMg);
        spareMg = v.stays * pitchers(amounts.totalMg + spareMg);
        amounts = amountsFor(chosen.spec, shelf, { ...order, spareMg });
      }
    } catch (error) {
      if (!(error instanceof ScaleError)) throw error;
      fault = error.message;
    }
  }
  const stop = chosen ? stopOf(chosen.spec, shelf, units.temperature) : null;
  const short = picked.filter(
    (vessel) => vessel.soldByWeight && !vessel.part && (amounts?.fillsMg[picked.indexOf(vessel)] ?? vessel.workingFillMg) < vessel.statedFillMg,
  );
  const testers = picked.filter((vessel) => vessel.state === "tester");
  const px = commonScale(vessels, 110, 150);
  const drawn = amounts
    ? [
        ...amounts.components.map((one) => ({
          id: one.id,
          name: one.name,
          amount: one.count ? one.count.n * (one.count.eachMg ?? 0) : one.mg,
          counted: false,
        })),
        ...picked
          .filter((one) => one.part?.kind !== "layer" || one.part.number === 1)
          .map((one) => ({ id: one.id, name: one.name, amount: one.count, counted: true })),
      ]
    : [];
  const lacking = drawn.filter((one) => stocks[one.id] && (stocks[one.id]?.onHand ?? 0) < one.amount);
  const potCost = amounts ? costOf(drawn.filter((one) => !one.counted).flatMap((one) => wouldTake(stocks[one.id]?.left ?? [], one.amount))).cost : 0;
  const jarCosts =
    amounts && potCost > 0 && picked.length > 0
      ? costPerJar(
          potCost,
          picked.map((one, index) => ({
            vesselId: one.id,
            fillMg: amounts.fillsMg[index] ?? 0,
            count: one.count,
            vesselCost: costOf(wouldTake(stocks[one.id]?.left ?? [], one.count)).cost / one.count,
          })),
        )
      : [];

  const begin = () => {
    if (!chosen) return;
    if (!fields.check()) return;
    if (picked.length === 0) return setSaid("Type a count for at least one vessel.");
    if (from !== "vessels" && !startFrom) return setSaid("Type the weight to begin from.");
    start(async () => {
      const outcome = await startBatch({
        batchId,
        formulaVersionId: chosen.versionId,
        vessels: picked.map((one) => ({ id: one.id, count: one.count, part: one.part })),
        sparePpm: v.spare,
        spareMg,
        resolutionUg,
        start: startFrom ?? null,
        pitcherMg: v.pitcher ?? null,
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
      actions={
        <Link className="press" href="/plan/fill">
          What can I fill?
        </Link>
      }
      lead={chosen ? `${chosen.name}, version ${chosen.number}: ${writePercent(chosen.spec.loadPpm)} of the ${chosen.spec.basis}` : "Choose a formula first."}
      side={
        <>
          {fault ? <Warn>{fault}</Warn> : null}
          {stop ? <Caution title="Not in gel">{stop.message}</Caution> : null}
          {short.map((vessel) => (
            <Warn key={vessel.id}>
              {vessel.name} is sold by weight but filled to {units.g(amounts?.fillsMg[picked.indexOf(vessel)] ?? vessel.workingFillMg)}, below its stated{" "}
              {units.g(vessel.statedFillMg)}. A buyer would be short-changed.
            </Warn>
          ))}
          {lacking.map((one) => {
            const there = Math.max(0, stocks[one.id]?.onHand ?? 0);
            return (
              <Warn key={one.id}>
                {one.name}: {one.counted ? `${one.amount} are needed, ${there} there` : `${units.g(one.amount)} is needed, ${units.g(there)} there`}.
              </Warn>
            );
          })}
          {testers.length > 0 ? <Caution title="Testers">{testers.map((one) => one.name).join(", ")}: for your own burns only, never for sale.</Caution> : null}
          {picked.some((one) => one.part?.kind === "half") ? (
            <Aside title="Half fills">They show how the lower half burns, early. A half fill never counts as a full test.</Aside>
          ) : null}
          {picked.some((one) => one.part?.kind === "layer") ? (
            <Aside title="Layers">One pot for each layer, three to five hours apart, the layer before it cold.</Aside>
          ) : null}
          {amounts?.warnings.map((warning) =>
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
            {vessels.map((vessel) => {
              const at = picked.findIndex((one) => one.id === vessel.id);
              const fill = at >= 0 && amounts ? amounts.fillsMg[at] : vessel.workingFillMg;
              return (
                <li key={vessel.id} className="grid grid-cols-[112px_1fr_84px] items-end gap-3 border-b border-line py-2 sm:grid-cols-[150px_1fr_96px]">
                  <JarSection {...vessel} headspaceUm={null} fillMg={fill ?? vessel.workingFillMg} scale={px} />
                  <div className="pb-2">
                    <div className="font-bold">
                      {vessel.name}
                      {vessel.state === "tester" ? <span className="font-normal text-safety"> ⚠ tester</span> : null}
                    </div>
                    <span className="figure text-[20px]">{units.g(fill ?? 0)}</span> <span className="text-soft">each</span>
                    {at >= 0 ? (
                      <select
                        aria-label={`How far ${vessel.name} is filled`}
                        className="entry mt-1 !min-h-[36px] !py-0 text-[15px]"
                        value={fields.text(`part:${vessel.id}`)}
                        onChange={(event) => fields.set(`part:${vessel.id}`, event.target.value)}
                      >
                        {PARTS.map((one) => (
                          <option key={one}>{one}</option>
                        ))}
                      </select>
                    ) : null}
                  </div>
                  <Field label="Count" {...fields.bind(`count:${vessel.id}`)} inputMode="numeric" placeholder="0" />
                </li>
              );
            })}
          </ul>
          <div className="mt-3 grid grid-cols-2 gap-x-4 gap-y-1">
            <Field
              label="Spare"
              unit="%"
              {...fields.bind("spare")}
              inputMode="decimal"
              hint={from === "vessels" ? "For the pitcher and the top-up." : "Not added to a weight."}
            />
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
            <Field
              label="Work from"
              {...fields.bind("from")}
              options={[
                { value: "vessels", label: "the fills of the vessels" },
                { value: "wax", label: "a weight of wax" },
                { value: "total", label: "a total" },
              ]}
            />
            {from === "vessels" ? null : (
              <Field label={from === "wax" ? "Wax to begin from" : "Total to begin from"} unit={units.mass} {...fields.bind("weight")} inputMode="decimal" />
            )}
            {from === "vessels" ? (
              <Field label="Stays in each pitcher" {...fields.bind("stays")} inputMode="decimal" hint="On its wall and the spoon: beside the spare." />
            ) : null}
            <Field
              label="A pitcher holds"
              {...fields.bind("pitcher")}
              inputMode="decimal"
              hint={`Like ${units.mass === "g" ? "900 g" : "2 lb"}; empty for one pot.`}
            />
          </div>
        </section>
        <section className="sheet" aria-live="polite">
          <h2>To weigh</h2>
          {amounts ? (
            <ToWeigh
              amounts={amounts}
              vessels={picked}
              stocks={stocks}
              fragrances={shelf.fragrances}
              resolutionUg={resolutionUg}
              pitcherMg={v.pitcher ?? null}
              shared={startFrom !== undefined}
              jarCosts={jarCosts}
            />
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
          <button type="submit" className="act mt-4 w-full" data-next-step disabled={busy || !chosen || stop !== null}>
            {busy ? "Starting" : "Start the batch"}
          </button>
        </section>
      </form>
    </Screen>
  );
}
