"use client";

import { type ChosenProduct, good, notToBeFilled, parseCount, parseMass, parsePart, parsePercent, potsOf, stopOf, writePercent } from "@hearth/core";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { parseWhen } from "@/forms/when";
import { usePlace } from "@/log/place";
import type { OwnProcess } from "@/server/processes";
import type { Shelf, Stocks } from "@/server/shelf";
import { commonScale } from "@/ui/jar-section";
import { Empty, Screen } from "@/ui/margin";
import { useNow, useUnits } from "@/ui/units";
import { Bodies } from "./bodies";
import { startBatch } from "./commands";
import { bodiesOf, costsOf, familyOf, lackingOf, type Part, type PlanFormula, processChoices, scalesOfShelf, suitedWick, workPlan } from "./model";
import { PlanMargin } from "./plan-margin";
import { ToWeigh } from "./to-weigh";

const count = {
  initial: "",
  parse: (text: string) => (text.trim() === "" ? good(0) : parseCount(text, { least: 0, most: 100_000, name: "jars" })),
} satisfies FieldRule<number>;
const part: FieldRule<unknown> = { initial: "full", parse: parsePart };
const any = (initial: string): FieldRule<unknown> => ({ initial, parse: good });

/** What the amounts begin from. */
type From = "vessels" | "wax" | "total";

/** Works out what to weigh for what is to be made, and starts the batch. */
export function Planner({
  formulas,
  asked,
  shelf,
  stocks,
  processes,
  counts,
}: {
  formulas: PlanFormula[];
  /** The formula that the address asks for. */
  asked: string | null;
  shelf: Shelf;
  stocks: Stocks;
  processes: OwnProcess[];
  /** Counts to begin with, by vessel. */
  counts: Record<string, string>;
}) {
  const units = useUnits();
  const place = usePlace();
  const router = useRouter();
  const now = useNow(30_000);
  const [batchId] = useState(() => v7());
  const [said, setSaid] = useState("");
  const [busy, start] = useTransition();
  const [formulaId, setFormulaId] = useState(asked ?? "");
  const [secondIds, setSecondIds] = useState<string[]>([]);
  const [choice, setChoice] = useState("formula");
  const chosen = formulas.find((one) => one.id === formulaId) ?? null;
  const family = familyOf(chosen, shelf);
  const choices = processChoices(chosen, processes, family, units.temperature);
  const process = choices.find((one) => one.value === choice)?.process ?? chosen?.spec.process ?? null;
  const pots = process ? potsOf(process.acts) : 1;
  const scales = useMemo(() => scalesOfShelf(shelf), [shelf]);
  const bodies = useMemo(() => bodiesOf(shelf, notToBeFilled), [shelf]);
  const rules = useMemo((): Record<string, FieldRule<unknown>> => {
    const mass = (more: object = {}) =>
      ({
        initial: "",
        parse: (text: string) => parseMass(text, { unit: units.mass, ...more }),
        echo: (mg: unknown) => units.g(mg as number),
      }) as FieldRule<unknown>;
    return {
      from: any("vessels"),
      weight: orNothing(mass()),
      spare: {
        initial: "5",
        parse: (text: string) => parsePercent(text, { least: 0, most: 100, name: "a spare" }),
        echo: (ppm: unknown) => writePercent(ppm as number),
      },
      waxScale: any(""),
      oilScale: any(""),
      stays: orNothing(mass({ most: 1_000_000 })),
      pitcher: orNothing(mass({ least: 50_000 })),
      startedAt: { initial: "", parse: (text: string) => parseWhen(text, now, units.zone) },
      ...Object.fromEntries(
        bodies.flatMap((body) => {
          const wick = suitedWick(body, family, shelf.wicks);
          return [
            [`count:${body.id}`, { ...count, initial: counts[body.id] ?? "" }],
            [`part:${body.id}`, part],
            [`wick:${body.id}`, any(wick?.id ?? "")],
            [`wicks:${body.id}`, any(String(shelf.vessels.find((one) => one.id === body.id)?.wicks ?? 1))],
          ];
        }),
      ),
    };
  }, [bodies, units, counts, family, shelf, now]);
  const fields = useFields(rules);
  const v = fields.values as Record<string, unknown> & { from?: From; weight?: number | null; spare?: number; pitcher?: number | null; stays?: number | null };
  const from = pots > 1 ? "vessels" : (v.from ?? "vessels");

  const picked = bodies.flatMap((body): (ChosenProduct & { state: string })[] => {
    const n = (v[`count:${body.id}`] as number | undefined) ?? 0;
    if (n === 0) return [];
    const wick = shelf.wicks.find((one) => one.id === fields.text(`wick:${body.id}`));
    const chosenWicks = wick
      ? { wickId: wick.id, name: wick.name, kind: wick.kind, size: wick.size, count: Number(fields.text(`wicks:${body.id}`)) || 1 }
      : null;
    return [{ ...body, count: n, part: (v[`part:${body.id}`] as Part | undefined) ?? null, chosenWicks }];
  });
  const startFrom = from === "vessels" || !v.weight ? undefined : from === "wax" ? { waxMg: v.weight } : { totalMg: v.weight };
  const others = Array.from({ length: pots - 1 }, (_, at) => formulas.find((one) => one.id === secondIds[at]) ?? null);
  const inPots = [chosen, ...others].filter((one): one is PlanFormula => one !== null);
  const ready =
    chosen && process && family !== "" && inPots.length === pots && (startFrom || (from === "vessels" && picked.length > 0)) && v.spare !== undefined;
  const worked = ready
    ? workPlan(
        {
          process,
          pots: inPots,
          products: picked,
          start: startFrom,
          sparePpm: startFrom ? 0 : (v.spare ?? 0),
          staysMg: v.stays ?? null,
          pitcherMg: v.pitcher ?? null,
          scales,
          waxScale: fields.text("waxScale"),
          oilScale: fields.text("oilScale"),
        },
        shelf,
      )
    : null;
  const planned = worked?.ok ? worked.planned : null;
  const fault = worked && !worked.ok ? worked : null;
  const fillAt = (id: string) => {
    const at = picked.findIndex((one) => one.id === id);
    return (at >= 0 ? planned?.fillsMg[at] : undefined) ?? bodies.find((one) => one.id === id)?.workingFillMg ?? 1;
  };
  const stop = inPots.map((one) => stopOf(one.spec, shelf, units.temperature)).find((one) => one !== null) ?? null;
  const lacking = worked?.ok ? lackingOf(worked.plan, stocks) : [];
  const warnings = (planned?.pots ?? [])
    .flatMap((pot) => pot.warnings)
    .filter((one, at, all) => all.findIndex((other) => other.message === one.message) === at);

  const begin = () => {
    if (!chosen || !fields.check()) return;
    if (picked.length === 0) return setSaid("Type a count for at least one vessel.");
    if (from !== "vessels" && !startFrom) return setSaid("Type the weight to begin from.");
    if (!worked?.ok) return setSaid(fault?.message ?? (pots > 1 ? "Choose a formula for each pot." : "Choose a formula."));
    const coarse = warnings.find((one) => one.code === "scale-too-coarse");
    if (coarse) return setSaid(coarse.message);
    start(async () => {
      const outcome = await startBatch(place, {
        batchId,
        formulaVersionIds: inPots.map((one) => one.versionId),
        process: choices.some((one) => one.value === choice) ? choice : "formula",
        products: picked.map((one) => ({
          id: one.id,
          body: one.body ?? "vessel",
          count: one.count,
          part: one.part ?? null,
          wick: one.chosenWicks ? { id: one.chosenWicks.wickId, count: one.chosenWicks.count } : null,
        })),
        sparePpm: startFrom ? 0 : v.spare,
        spareMg: worked.spareMg,
        waxScale: worked.scales.wax.id,
        oilScale: worked.scales.oil.id,
        start: startFrom ?? null,
        pitcherMg: v.pitcher ?? null,
        startedAt: v.startedAt ?? null,
      }).catch(() => null);
      if (!outcome) return setSaid("The program cannot be reached just now. Nothing you typed is lost: try again in a moment.");
      if (!outcome.ok) return setSaid(outcome.message);
      router.push(`/bench/${outcome.value.id}`);
    });
  };

  if (formulas.length === 0)
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
  if (bodies.length === 0)
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
          <p>Put the jars, cups and moulds you fill on the shelf, with their fill weights. Then the amounts follow from how many of each you want.</p>
        </Empty>
      </Screen>
    );
  const scaleOptions = (suited: string) => [
    { value: "", label: `as suits: ${suited}` },
    ...scales.map((one) => ({ value: one.id ?? "", label: `${one.name} (${units.g(one.resolutionUg / 1_000)})` })),
  ];
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
        <PlanMargin
          noScale={scales.length === 0}
          fault={fault && fault.field !== "pitcher_capacity_g" ? fault.message : null}
          stop={stop?.message ?? null}
          picked={picked}
          fillAt={fillAt}
          lacking={lacking}
          warnings={warnings}
        />
      }
    >
      {/* Enter in a count starts nothing: starting is its own button. */}
      <form ref={fields.form} className="grid grid-cols-1 gap-6 xl:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]" onSubmit={(event) => event.preventDefault()}>
        <section className="sheet">
          <div className="grid grid-cols-2 gap-x-4">
            <div>
              <label htmlFor="formula" className="mb-1 block text-[15px] font-semibold">
                Formula
              </label>
              <select
                id="formula"
                className="entry"
                value={chosen?.id ?? ""}
                onChange={(event) => {
                  setFormulaId(event.target.value);
                  setChoice("formula");
                  window.history.replaceState(null, "", `/plan?formula=${event.target.value}`);
                }}
              >
                {chosen ? null : <option value="">choose</option>}
                {formulas.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
              </select>
            </div>
            <div>
              <label htmlFor="process" className="mb-1 block text-[15px] font-semibold">
                Process
              </label>
              <select id="process" className="entry" value={choice} onChange={(event) => setChoice(event.target.value)}>
                {choices.map((one) => (
                  <option key={one.value} value={one.value}>
                    {one.name}
                  </option>
                ))}
              </select>
            </div>
            {others.map((one, at) => (
              <div key={at} className="col-span-2 mt-2">
                <label htmlFor={`formula-${at + 2}`} className="mb-1 block text-[15px] font-semibold">
                  Formula of pot {at + 2}
                </label>
                <select
                  id={`formula-${at + 2}`}
                  className="entry"
                  value={one?.id ?? ""}
                  onChange={(event) => setSecondIds((old) => Object.assign([...old], { [at]: event.target.value }))}
                >
                  <option value="">choose</option>
                  {formulas.map((other) => (
                    <option key={other.id} value={other.id}>
                      {other.name}
                    </option>
                  ))}
                </select>
              </div>
            ))}
          </div>
          <h2 className="mt-4">How many of which</h2>
          <Bodies
            bodies={bodies}
            fillOf={fillAt}
            picked={new Set(picked.map((one) => one.id))}
            wicks={shelf.wicks}
            fields={fields}
            scale={commonScale(bodies, 84, 120)}
          />
          <div className="mt-3 grid grid-cols-2 gap-x-4 gap-y-1">
            <Field
              label="Spare"
              unit="%"
              {...fields.bind("spare")}
              inputMode="decimal"
              hint={from === "vessels" ? "For the pitcher and the top-up." : "Not added to a weight."}
            />
            {pots > 1 ? (
              <span />
            ) : (
              <Field
                label="Work from"
                {...fields.bind("from")}
                options={[
                  { value: "vessels", label: "the fills of the vessels" },
                  { value: "wax", label: "a weight of wax" },
                  { value: "total", label: "a total" },
                ]}
              />
            )}
            {from === "vessels" ? null : (
              <Field label={from === "wax" ? "Wax to begin from" : "Total to begin from"} unit={units.mass} {...fields.bind("weight")} inputMode="decimal" />
            )}
            {scales.length > 0 ? (
              <>
                <Field label="Wax on" {...fields.bind("waxScale")} options={scaleOptions(worked?.ok ? worked.scales.wax.name : "the one that takes most")} />
                <Field label="Oil on" {...fields.bind("oilScale")} options={scaleOptions(worked?.ok ? worked.scales.oil.name : "the finest that takes it")} />
              </>
            ) : null}
            {from === "vessels" ? (
              <Field
                label="Stays in each pitcher"
                unit={units.mass}
                {...fields.bind("stays")}
                inputMode="decimal"
                hint="On its wall and the spoon: beside the spare."
              />
            ) : null}
            <Field
              label="A pitcher holds"
              unit={units.mass}
              {...fields.bind("pitcher")}
              {...(fault?.field === "pitcher_capacity_g" ? { error: fault.message } : {})}
              inputMode="decimal"
              hint={`Like ${units.mass === "g" ? "900 g" : "2 lb"}; empty for one pot.`}
            />
            <Field label="Started" {...fields.bind("startedAt")} placeholder="now" hint="For a batch that is put down late." />
          </div>
        </section>
        <section className="sheet self-start xl:sticky xl:top-3 xl:max-h-[calc(100vh-24px)] xl:overflow-auto" aria-live="polite">
          <h2>To weigh</h2>
          {worked?.ok ? (
            <ToWeigh
              planned={worked.planned}
              plan={worked.plan}
              stocks={stocks}
              fragrances={shelf.fragrances}
              shared={startFrom !== undefined}
              costs={costsOf(worked.plan, stocks)}
            />
          ) : (
            <p className="mt-2 text-soft">
              {pots > inPots.length
                ? `This process works ${pots} pots: choose a formula for each.`
                : chosen
                  ? "Type how many of each, and the weights appear here as you type."
                  : "Choose a formula, then how many of each."}
            </p>
          )}
          {said ? (
            <p role="alert" className="mt-3 font-semibold text-hot">
              ▲ {said}
            </p>
          ) : null}
          <button type="button" className="act mt-4 w-full" data-next-step disabled={busy || !chosen || stop !== null || scales.length === 0} onClick={begin}>
            {busy ? "Starting" : "Start the batch"}
          </button>
        </section>
      </form>
    </Screen>
  );
}
