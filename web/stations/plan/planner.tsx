"use client";

import { type ChosenProduct, fillOf, gelFaultsOf, good, innerOf, notToBeFilled, parseCount, parsePart, potsOf, type Rates, wicksOf } from "@hearth/core";
import { useEffect, useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { AddBeside } from "@/catalogue/add-beside";
import { useDraft } from "@/catalogue/draft";
import { type Few, useShelf } from "@/catalogue/use-shelf";
import { ask } from "@/forms/ask";
import { Chooser } from "@/forms/chooser";
import { Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { likeliest } from "@/forms/matches";
import { massRule, percentRule, whenRule } from "@/forms/rules";
import { usePlace } from "@/log/place";
import type { OwnProcess, ReadyChoice } from "@/server/processes";
import type { Product } from "@/server/products";
import { Link, useRouter } from "@/ui/address";
import { commonScale } from "@/ui/jar-section";
import { Empty, Screen } from "@/ui/margin";
import { Said } from "@/ui/said";
import { useNow, useUnits } from "@/ui/units";
import { Bodies } from "./bodies";
import { ChooseMade } from "./choose-made";
import { startBatch } from "./commands";
import { FromWeight } from "./from-weight";
import { InSight } from "./in-sight";
import {
  bodiesOf,
  costsOf,
  familyOf,
  type Line,
  lackingOf,
  linesOf,
  type Part,
  type PlanFormula,
  processChoices,
  scalesOfShelf,
  suitedWick,
  workPlan,
} from "./model";
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

/** The line that stands for a body first: what is counted of it by its vessel alone is counted there. */
const firstOf = (lines: readonly Line[], bodyId: string): string | undefined => lines.find((line) => line.body.id === bodyId)?.key;

/** How many bodies are shown beside the formula's products before one is looked for. */
const SHOWN = 10;

/** Works out what to weigh for what is to be made, and starts the batch. */
export function Planner({
  names,
  formula: chosen,
  others: asked,
  products,
  askedProduct,
  few,
  processes,
  readyMade,
  counts,
  rates,
}: {
  /** The formulas to choose from, those used lately first. */
  names: { id: string; name: string }[];
  formula: PlanFormula | null;
  /** The formulas of further pots. */
  others: PlanFormula[];
  /** The products that are made by the formula. */
  products: Product[];
  askedProduct: string | null;
  few: Few;
  processes: OwnProcess[];
  readyMade: ReadyChoice[];
  /** Counts to begin with, by vessel. */
  counts: Record<string, string>;
  rates: Rates;
}) {
  const units = useUnits();
  const place = usePlace();
  const router = useRouter();
  const now = useNow(30_000);
  const known = useShelf(few);
  const { shelf, stocks, lately } = known;
  const [batchId] = useState(() => v7());
  const [said, setSaid] = useState("");
  const [busy, start] = useTransition();
  const [reading, read] = useTransition();
  const [choice, setChoice] = useState("formula");
  const [added, setAdded] = useState<string[]>(() => Object.keys(counts));
  const [adding, setAdding] = useState<string | null>(null);
  const family = familyOf(chosen, shelf);
  const choices = processChoices(chosen, processes, readyMade, family);
  const process = choices.find((one) => one.value === choice)?.process ?? chosen?.spec.process ?? null;
  const pots = process ? potsOf(process.acts) : 1;
  const scales = useMemo(() => scalesOfShelf(shelf), [shelf]);
  const bodies = useMemo(() => bodiesOf(shelf, notToBeFilled), [shelf]);
  /** The bodies that are offered without being looked for stay the same when all are known. */
  const first = useMemo(() => bodiesOf(few.shelf, notToBeFilled), [few]);
  const lines = useMemo(() => {
    const more = bodies.filter((one) => !first.some((other) => other.id === one.id));
    return linesOf([...first.map((one) => bodies.find((other) => other.id === one.id) ?? one), ...more], products, added, Math.min(SHOWN, first.length));
  }, [bodies, first, products, added]);
  const rules = useMemo((): Record<string, FieldRule<unknown>> => {
    return {
      from: any("vessels"),
      weight: orNothing(massRule(units)) as FieldRule<unknown>,
      spare: percentRule({ least: 0, most: 100, name: "a spare" }, "5") as FieldRule<unknown>,
      waxScale: any(""),
      oilScale: any(""),
      stays: orNothing(massRule(units, { most: 1_000_000 })) as FieldRule<unknown>,
      pitcher: orNothing(massRule(units, { least: 50_000 })) as FieldRule<unknown>,
      startedAt: whenRule(now, units) as FieldRule<unknown>,
      ...Object.fromEntries(
        lines.flatMap(({ key, product, body }) => {
          const wick = product ? product.wickId : (suitedWick(body, family, shelf.wicks)?.id ?? null);
          return [
            [`count:${key}`, { ...count, initial: counts[key] ?? (firstOf(lines, body.id) === key ? (counts[body.id] ?? "") : "") }],
            [`part:${key}`, part],
            [`wick:${key}`, any(wick ?? "")],
            [`wicks:${key}`, any(String(product?.wicks ?? shelf.vessels.find((one) => one.id === body.id)?.wicks ?? 1))],
          ];
        }),
      ),
    };
  }, [lines, units, counts, family, shelf, now]);
  const fields = useFields(rules);
  useEffect(() => {
    if (askedProduct) (fields.form.current?.elements.namedItem(`count:${askedProduct}`) as HTMLElement | null)?.focus();
  }, [askedProduct, fields.form]);
  const v = fields.values as Record<string, unknown> & { from?: From; weight?: number | null; spare?: number; pitcher?: number | null; stays?: number | null };
  const from = pots > 1 ? "vessels" : (v.from ?? "vessels");

  const draft = useDraft("plan", { ...fields.typed, formula: chosen?.id ?? "", added: added.join() }, ({ formula, added: more, ...typed }) => {
    setAdded((more ?? "").split(",").filter(Boolean));
    known.look();
    if (formula && formula !== chosen?.id) read(() => router.replace(`/plan?formula=${formula}`, { scroll: false }));
    fields.fill(typed);
  });
  const picked = lines.flatMap(({ key, body }): (ChosenProduct & { state: string; key: string })[] => {
    const n = (v[`count:${key}`] as number | undefined) ?? 0;
    if (n === 0) return [];
    const wick = shelf.wicks.find((one) => one.id === fields.text(`wick:${key}`));
    const chosenWicks = wick ? wicksOf(wick, Number(fields.text(`wicks:${key}`)) || 1) : null;
    return [{ ...body, key, count: n, part: (v[`part:${key}`] as Part | undefined) ?? null, chosenWicks }];
  });
  const startFrom = from === "vessels" || !v.weight ? undefined : from === "wax" ? { waxMg: v.weight } : { totalMg: v.weight };
  const others = Array.from({ length: pots - 1 }, (_, at) => asked[at] ?? null);
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
  const fillAt = (key: string) => {
    const at = picked.findIndex((one) => one.key === key);
    return (at >= 0 ? planned?.fillsMg[at] : undefined) ?? lines.find((one) => one.key === key)?.body.workingFillMg ?? 1;
  };
  /** Chooses the formulas of the pots: the page reads what they say, and what is typed stays. */
  const choose = (ids: readonly string[]) => {
    const [formula = "", ...more] = ids;
    setChoice("formula");
    read(() => router.replace(`/plan?formula=${formula}${more.some(Boolean) ? `&with=${more.join()}` : ""}`, { scroll: false }));
  };
  const chosenWicks = picked.flatMap((one) => (one.chosenWicks ? [one.chosenWicks] : []));
  const gel = inPots.flatMap((one) => gelFaultsOf({ ...one.spec, wicks: chosenWicks, ...(process ? { process } : {}) }, shelf, units.temperature));
  const lacking = worked?.ok ? lackingOf(worked.plan, stocks) : [];
  const warnings = (planned?.pots ?? [])
    .flatMap((pot) => pot.warnings)
    .filter((one, at, all) => all.findIndex((other) => other.message === one.message) === at);

  const begin = (rehearsal = false) => {
    if (!chosen || !fields.check()) return;
    if (picked.length === 0) return setSaid("Type a count for at least one vessel.");
    if (from !== "vessels" && !startFrom) return setSaid("Type the weight to begin from.");
    if (!worked?.ok) return setSaid(fault?.message ?? (pots > 1 ? "Choose a formula for each pot." : "Choose a formula."));
    const coarse = warnings.find((one) => one.code === "scale-too-coarse");
    if (coarse) return setSaid(coarse.message);
    start(async () => {
      const outcome = await ask(
        startBatch(place, {
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
          rehearsal,
        }),
      );
      if (!outcome.ok) return setSaid(outcome.message);
      if (!rehearsal) draft.drop();
      router.push(`/bench/${outcome.value.id}`);
    });
  };

  if (names.length === 0)
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
    ...scales.map((one) => ({ value: one.id ?? "", label: `${one.name} (${units.resolution(one)})` })),
  ];
  return (
    <Screen
      title="Plan a batch"
      actions={
        <>
          <Link className="press" href="/plan/wanted">
            What is wanted
          </Link>
          <Link className="press" href="/plan/day">
            A day at the pots
          </Link>
          <Link className="press" href="/plan/fill">
            What can I fill?
          </Link>
        </>
      }
      lead={chosen ? `${chosen.name}, version ${chosen.number}: ${units.percent(chosen.spec.loadPpm)} of the ${chosen.spec.basis}` : "Choose a formula first."}
      side={
        <>
          {draft.offer}
          <PlanMargin
            noScale={scales.length === 0}
            fault={fault && fault.field !== "pitcher_capacity_g" ? fault.message : null}
            gel={gel}
            picked={picked}
            fillAt={fillAt}
            lacking={lacking}
            warnings={warnings}
          />
        </>
      }
    >
      {/* Enter in a count starts nothing: starting is its own button. */}
      <form ref={fields.form} className="grid grid-cols-1 gap-6 xl:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]" onSubmit={(event) => event.preventDefault()}>
        <section className="sheet">
          <ChooseMade
            formulas={known.whole?.formulas ?? names}
            chosen={chosen}
            others={others}
            choices={choices}
            choice={choice}
            onLook={known.look}
            onFormula={(id) => choose([id])}
            onOther={(at, id) => choose([chosen?.id ?? "", ...others.map((one, index) => (index === at ? id : (one?.id ?? "")))])}
            onChoice={setChoice}
          />
          <h2 className="mt-4">How many of which</h2>
          {reading ? (
            <p role="status" className="text-soft">
              Reading the formula
            </p>
          ) : null}
          <Bodies
            lines={lines}
            fillOf={fillAt}
            picked={new Set(picked.map((one) => one.key))}
            wicks={shelf.wicks}
            fields={fields}
            scale={commonScale(
              lines.map((one) => one.body),
              84,
              120,
            )}
            onLook={known.look}
          />
          <div className="mt-3">
            <Chooser
              label="Another vessel or mould"
              value=""
              options={likeliest(
                bodies.filter((one) => !lines.some((line) => line.body.id === one.id)),
                lately,
                (id) => stocks[id]?.onHand,
              ).map((one) => ({ value: one.id, name: one.name, note: units.g(one.workingFillMg) }))}
              onLook={known.look}
              onValue={(id) => {
                setAdded((old) => [...old, id]);
                requestAnimationFrame(() => (fields.form.current?.elements.namedItem(`count:${id}`) as HTMLElement | null)?.focus());
              }}
              add={{ label: "a new vessel", act: setAdding }}
            />
          </div>
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
            <Field label="Started" {...fields.bind("startedAt")} placeholder="now" hint="For a batch that is entered late." />
          </div>
          {startFrom && planned && picked.length > 0 ? (
            <FromWeight
              totalMg={planned.pots[0]?.totalMg ?? 0}
              weightMg={v.weight ?? 0}
              picked={picked.map((one) => ({
                key: one.key,
                name: one.name,
                count: one.count,
                fillMg: fillOf(innerOf(one), one.workingFillMg, one.part ?? null),
              }))}
              others={lines
                .filter((line) => !picked.some((one) => one.key === line.key))
                .map(({ key, body }) => ({ key, name: body.name, fillMg: body.workingFillMg }))}
              onCounts={(counts) => fields.fill(Object.fromEntries(Object.entries(counts).map(([key, n]) => [`count:${key}`, String(n)])))}
              onWeight={(mg) => fields.set("weight", units.typed.g(units.asShown(mg)))}
            />
          ) : null}
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
              costs={costsOf(worked.plan, stocks, picked, products, rates)}
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
          <Said className="mt-3">{said}</Said>
          <button
            type="button"
            className="act mt-4 w-full"
            data-next-step
            disabled={busy || reading || !chosen || gel.some((one) => one.weight === "stop") || scales.length === 0}
            onClick={() => begin()}
          >
            {busy ? "Starting" : "Start the batch"}
          </button>
          <button
            type="button"
            className="press mt-2 w-full"
            disabled={busy || reading || !chosen || gel.some((one) => one.weight === "stop") || scales.length === 0}
            onClick={() => begin(true)}
          >
            Rehearse it first, with a simulated pot
          </button>
        </section>
      </form>
      {adding === null ? null : (
        <AddBeside
          kind="vessel"
          name={adding}
          waxes={shelf.waxes}
          onDone={() => setAdding(null)}
          onMade={async (id) => {
            await known.again();
            setAdded((old) => [...old, id]);
            setAdding(null);
          }}
        />
      )}
      {planned ? <InSight planned={planned} /> : null}
    </Screen>
  );
}
