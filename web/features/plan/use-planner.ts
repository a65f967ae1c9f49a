"use client";

import { type ChosenProduct, embedsOf, gelFaultsOf, isDivided, moldAtHeight, notToBeFilled, potsOf, type Rates, wicksOf, withReserve } from "@hearth/core";
import { useDeferredValue, useEffect, useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { type Few, useShelf } from "@/catalogue/use-shelf";
import { callAction } from "@/forms/call-action";
import { useFields } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { startBatch } from "@/server/batches/commands";
import type { LearnedReserve } from "@/server/batches/molds";
import type { BatchWanted } from "@/server/batches/start-batch";
import type { CustomProcess, PresetChoice } from "@/server/formulas/processes";
import type { Product } from "@/server/products/products";
import { useRouter } from "@/ui/address";
import { useNow, useUnits } from "@/ui/units";
import { containersOf, familyOf, linesOf, type PlanFormula, processChoices, scalesOfShelf, shortagesOf, workPlan } from "./model";
import { type PlannerValues, plannerRules, typedOf } from "./planner-fields";

export interface PlannerProps {
  /** The formulas to choose from, those used lately first. */
  names: { id: string; name: string }[];
  formula: PlanFormula | null;
  /** The formulas of further pots. */
  others: PlanFormula[];
  /** The products that are made by the formulas. */
  products: Product[];
  askedProduct: string | null;
  few: Few;
  processes: CustomProcess[];
  readyMade: PresetChoice[];
  /** Counts to begin with, by vessel. */
  counts: Record<string, string>;
  rates: Rates;
  /** What second pours of the molds took before. */
  reserves: LearnedReserve[];
}

/** How many containers are shown beside the formula's products before one is looked for. */
const SHOWN = 10;

/** What can be filled, what is offered of it, and the fields for it. */
function useLines({ products, few, counts, formula, others }: PlannerProps, family: string, known: ReturnType<typeof useShelf>, added: readonly string[]) {
  const units = useUnits();
  const now = useNow(30_000);
  const { shelf } = known;
  const containers = useMemo(() => containersOf(shelf, notToBeFilled), [shelf]);
  /** The containers that are offered without being looked for stay the same when all are known. */
  const first = useMemo(() => containersOf(few.shelf, notToBeFilled), [few]);
  const lines = useMemo(() => {
    const more = containers.filter((container) => !first.some((other) => other.id === container.id));
    return linesOf(
      [...first.map((plannedContainer) => containers.find((other) => other.id === plannedContainer.id) ?? plannedContainer), ...more],
      products,
      added,
      Math.min(SHOWN, first.length),
    );
  }, [containers, first, products, added]);
  const formulaIds = useMemo(() => [formula, ...others].flatMap((item) => (item ? [item.id] : [])), [formula, others]);
  const rules = useMemo(() => plannerRules(lines, { units, counts, family, shelf, now, formulaIds }), [lines, units, counts, family, shelf, now, formulaIds]);
  return { containers, lines, fields: useFields(rules) };
}

/** A plan as it is typed, and what follows from it, worked out behind the typing. `path` is the page it stands on. */
export function usePlanner(props: PlannerProps, path = "/plan") {
  const { formula: chosen, others: asked, askedProduct, processes, readyMade } = props;
  const units = useUnits();
  const router = useRouter();
  const known = useShelf(props.few);
  const { shelf, stocks } = known;
  const [reading, read] = useTransition();
  const [choice, setChoice] = useState("formula");
  const [added, setAdded] = useState<string[]>(() => Object.keys(props.counts));
  const family = familyOf(chosen, shelf);
  const { containers, lines, fields } = useLines(props, family, known, added);
  const choices = useMemo(() => processChoices(chosen, processes, readyMade, family), [chosen, processes, readyMade, family]);
  const [reservePpm, setReserve] = useState<number | null>(null);
  const written = choices.find((processChoice) => processChoice.value === choice)?.process ?? chosen?.spec.process ?? null;
  const process = useMemo(() => (written && reservePpm !== null ? withReserve(written, reservePpm) : written), [written, reservePpm]);
  const pots = process ? potsOf(process.steps) : 1;
  /** One melt is divided: each line says which pot it is poured from. */
  const divided = process !== null && isDivided(process.steps);
  const scales = useMemo(() => scalesOfShelf(shelf), [shelf]);
  useEffect(() => {
    if (askedProduct) (fields.form.current?.elements.namedItem(`count:${askedProduct}`) as HTMLElement | null)?.focus();
  }, [askedProduct, fields.form]);

  // What is typed is shown at once; what follows from it a moment later.
  const values = useDeferredValue(fields.values) as PlannerValues & Record<string, unknown>;
  const typed = useDeferredValue(fields.typed);
  const from = pots > 1 ? "vessels" : (values.from ?? "vessels");
  const picked = useMemo(() => {
    const text = (name: string) => typed[name] ?? fields.initial(name);
    return lines.flatMap(({ key, container }): (ChosenProduct & { state: string; key: string })[] => {
      const line = typedOf(key, values, text);
      if (line.count === 0) return [];
      const wick = shelf.wicks.find((wick) => wick.id === line.wickId);
      const filled = container.container === "mold" && line.heightUm ? moldAtHeight(container, line.heightUm) : container;
      return [
        {
          ...filled,
          ...{ key, count: line.count, part: line.part, chosenWicks: wick ? wicksOf(wick, line.wicks) : null, embeds: embedsOf(line.embeds, shelf.embeds) },
          ...(divided ? { pot: Math.min(line.pot, pots - 1) } : {}),
        },
      ];
    });
  }, [lines, values, typed, shelf, divided, pots, fields.initial]);
  const others = useMemo(() => Array.from({ length: pots - 1 }, (_, index) => asked[index] ?? null), [pots, asked]);
  const inPots = useMemo(() => [chosen, ...others].filter((formula): formula is PlanFormula => formula !== null), [chosen, others]);
  const startFrom = useMemo(
    () => (from === "vessels" || !values.weight ? undefined : from === "wax" ? { waxMg: values.weight } : { totalMg: values.weight }),
    [from, values.weight],
  );
  const { spare, stays = null, pitcher = null } = values;
  const [waxScale, oilScale] = [typed.waxScale ?? "", typed.oilScale ?? ""];
  const isReady = chosen !== null && process !== null && family !== "" && inPots.length === pots && (startFrom || (from === "vessels" && picked.length > 0));
  const worked = useMemo(
    () =>
      isReady && process && spare !== undefined
        ? workPlan(
            {
              process,
              pots: inPots,
              products: picked,
              start: startFrom,
              sparePpm: startFrom ? 0 : spare,
              staysMg: stays,
              pitcherMg: pitcher,
              scales,
              waxScale,
              oilScale,
            },
            shelf,
          )
        : null,
    [isReady, process, spare, inPots, picked, startFrom, stays, pitcher, scales, waxScale, oilScale, shelf],
  );
  const planned = worked?.ok ? worked.planned : null;
  const fault = worked && !worked.ok ? worked : null;
  const gel = useMemo(() => {
    const wicks = picked.flatMap((item) => (item.chosenWicks ? [item.chosenWicks] : []));
    return inPots.flatMap((inPot) => gelFaultsOf({ ...inPot.spec, wicks, ...(process ? { process } : {}) }, shelf, units.temperature));
  }, [picked, inPots, process, shelf, units.temperature]);
  return {
    ...{
      known,
      fields,
      containers,
      lines,
      scales,
      chosen,
      others,
      inPots,
      choices,
      choice,
      setChoice,
      pots,
      divided,
      reading,
      setAdded,
      process,
      reservePpm,
      setReserve,
      reserves: props.reserves,
    },
    ...{ values, from, picked, startFrom, worked, planned, fault, gel },
    /** Returns whether what follows is of what is typed now. */
    isCurrent: () => values === fields.values && typed === fields.typed && fields.isCurrent(),
    shortage: worked?.ok ? shortagesOf(worked.plan, stocks, shelf.vessels) : [],
    warnings: (planned?.pots ?? [])
      .flatMap((pot) => pot.warnings)
      .filter((outWarning, index, all) => all.findIndex((other) => other.message === outWarning.message) === index),
    /** What goes into one piece of a line, as it is worked out. */
    fillAt: (key: string): number => {
      const at = picked.findIndex((item) => item.key === key);
      return (at >= 0 ? planned?.fillsMg[at] : undefined) ?? lines.find((line) => line.key === key)?.container.workingFillMg ?? 1;
    },
    /** Chooses the formulas of the pots: the page reads what they say, and what is typed stays. */
    choose: (ids: readonly string[]) => {
      const [formula = "", ...more] = ids;
      if (formula !== chosen?.id) setChoice("formula");
      read(() => router.replace(`${path}?formula=${formula}${more.some(Boolean) ? `&with=${more.join()}` : ""}`, { scroll: false }));
    },
    /** What a draft keeps of it, and how it is taken from one. */
    typedForDraft: { ...fields.typed, formula: chosen?.id ?? "", added: added.join() },
    takeDraft: ({ formula, added: more, ...kept }: Record<string, string>) => {
      setAdded((more ?? "").split(",").filter(Boolean));
      known.look();
      if (formula && formula !== chosen?.id) read(() => router.replace(`${path}?formula=${formula}`, { scroll: false }));
      fields.fill(kept);
    },
    /** Puts another container among the lines, and the focus into its count. */
    addLine: (id: string) => {
      setAdded((old) => [...old, id]);
      requestAnimationFrame(() => (fields.form.current?.elements.namedItem(`count:${id}`) as HTMLElement | null)?.focus());
    },
  };
}
export type PlannerState = ReturnType<typeof usePlanner>;

/** Returns a function that asks for something, which is done once what follows from the plan is of what is typed now. */
export function useOnceWorked<T>(plan: PlannerState, run: (asked: T) => void): (asked: T) => void {
  const [asked, setAsked] = useState<{ of: T } | null>(null);
  useEffect(() => {
    if (!asked || !plan.isCurrent()) return;
    setAsked(null);
    run(asked.of);
  });
  return (of) => setAsked({ of });
}

/** Returns what the server is asked to start, or what stands against it as text. Faults of fields are shown at them; the text is then empty. */
export function startOf(plan: PlannerState, batchId: string, rehearsal: boolean): BatchWanted | string {
  const { chosen, fields, picked, from, startFrom, worked, fault, pots, warnings, inPots, choices, choice, values } = plan;
  if (!chosen || !fields.check()) return "";
  if (picked.length === 0) return "Enter how many of at least one vessel.";
  if (from !== "vessels" && !startFrom) return "Enter the weight.";
  if (!worked?.ok) return fault?.message ?? (pots > 1 ? "Choose a formula for each pot." : "Choose a formula.");
  const coarse = warnings.find((warning) => warning.code === "scale-too-coarse");
  if (coarse) return coarse.message;
  return {
    batchId,
    formulaVersionIds: inPots.map((inPot) => inPot.versionId),
    process: choices.some((processChoice) => processChoice.value === choice) ? choice : "formula",
    products: picked.map((item) => ({
      id: item.id,
      container: item.container ?? "vessel",
      count: item.count,
      part: item.part ?? null,
      embeds: (item.embeds ?? []).map(({ embedId, count: each }) => ({ id: embedId, count: each })),
      wick: item.chosenWicks ? { id: item.chosenWicks.wickId, count: item.chosenWicks.count } : null,
      ...(item.pot === undefined ? {} : { pot: item.pot }),
      ...(item.container === "mold" ? { heightUm: item.heightUm } : {}),
    })),
    sparePpm: startFrom ? 0 : (values.spare ?? 0),
    spareMg: worked.spareMg,
    waxScale: worked.scales.wax.id ?? "",
    oilScale: worked.scales.oil.id ?? "",
    start: startFrom ?? null,
    pitcherMg: values.pitcher ?? null,
    reservePpm: plan.reservePpm,
    startedAt: values.startedAt ?? null,
    rehearsal,
  };
}

/** Begins the batch that is planned, or a rehearsal of it; what stands against it is said. */
export function useBegin(plan: PlannerState, onBegun: () => void) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [batchId] = useState(() => v7());
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  // What stood in the way is no longer said once the amounts are others.
  useEffect(() => setMessage(""), [plan.worked]);
  const begin = useOnceWorked(plan, (asked: "batch" | "rehearsal") => {
    const wanted = startOf(plan, batchId, asked === "rehearsal");
    if (typeof wanted === "string") return setMessage(wanted);
    start(async () => {
      const outcome = await callAction(startBatch(workshop, wanted));
      if (!outcome.ok) return setMessage(outcome.message);
      if (asked === "batch") onBegun();
      router.push(`/bench/${outcome.value.id}`);
    });
  });
  return { begin, message, busy };
}
