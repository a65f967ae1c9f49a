"use client";

import { type ChosenProduct, good, notToBeFilled, parseCount, parsePart, potsOf, type Rates, stopOf } from "@hearth/core";
import { useEffect, useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { useDraft } from "@/catalogue/draft";
import { type Few, useShelf } from "@/catalogue/use-shelf";
import { ask } from "@/forms/ask";
import { type FieldRule, orNothing, useFields } from "@/forms/fields";
import { massRule, percentRule, whenRule } from "@/forms/rules";
import { usePlace } from "@/log/place";
import type { OwnProcess, ReadyChoice } from "@/server/processes";
import type { Product } from "@/server/products";
import { useRouter } from "@/ui/address";
import { useNow, useUnits } from "@/ui/units";
import { startBatch } from "./commands";
import { bodiesOf, familyOf, type Line, lackingOf, linesOf, type Part, type PlanFormula, processChoices, scalesOfShelf, suitedWick, workPlan } from "./model";

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

/** What is known where a plan begins. */
export interface Begun {
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
}

/** What is typed of a plan, what follows from it, and its start. */
export function usePlanning({ formula: chosen, others: asked, products, askedProduct, few, processes, readyMade, counts }: Omit<Begun, "names" | "rates">) {
  const units = useUnits();
  const place = usePlace();
  const router = useRouter();
  const now = useNow(30_000);
  const known = useShelf(few);
  const { shelf, stocks } = known;
  const [batchId] = useState(() => v7());
  const [said, setSaid] = useState("");
  const [busy, start] = useTransition();
  const [reading, read] = useTransition();
  const [choice, setChoice] = useState("formula");
  const [added, setAdded] = useState<string[]>(() => Object.keys(counts));
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
    const chosenWicks = wick ? { wickId: wick.id, name: wick.name, kind: wick.kind, size: wick.size, count: Number(fields.text(`wicks:${key}`)) || 1 } : null;
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
  const stop = inPots.map((one) => stopOf(one.spec, shelf, units.temperature)).find((one) => one !== null) ?? null;
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
  return {
    fields,
    known,
    draft,
    scales,
    bodies,
    lines,
    pots,
    from,
    others,
    inPots,
    choices,
    choice,
    setChoice,
    choose,
    add: (id: string) => setAdded((old) => [...old, id]),
    picked,
    fillAt,
    worked,
    planned,
    fault,
    stop,
    lacking,
    warnings,
    /** Whether the amounts begin from a weight, which the vessels share. */
    shared: startFrom !== undefined,
    begin,
    said,
    busy,
    reading,
  };
}
export type Planning = ReturnType<typeof usePlanning>;
