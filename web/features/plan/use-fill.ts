"use client";

import { type Aim, type Choice, costOfProduct, LeftoversError, leftoversProgramme, mostAlone, notToBeFilled, type Rates, type Supply } from "@hearth/core";
import { useMemo, useState } from "react";
import { readSpec } from "@/catalogue/catalogue";
import { type Few, useShelf } from "@/catalogue/use-shelf";
import { amountRule } from "@/forms/amount";
import { choiceRule, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { countRule, moneyRule, percentRule } from "@/forms/rules";
import { useWorkshop } from "@/log/workshop";
import type { Stocks } from "@/server/inventory/shelf";
import type { Product } from "@/server/products/products";
import { type Formats, useUnits } from "@/ui/units";
import { drawsFrom, type FillLine, firstLines, limitingFrom, type Specs } from "./fill-model";
import { containersOf } from "./model";
import { useSolver } from "./use-solver";

/** Returns what one piece of a product earns, as it is typed: its share of the pack's price, less what it costs from the oldest lots. Nothing below zero. */
function worthOf(product: Product | null, draw: ReadonlyMap<string, number>, stocks: Stocks, rates: Rates, decimals: number): string {
  if (product?.price == null) return "";
  const { cost } = costOfProduct(product, draw, (id) => stocks[id]?.left ?? [], rates);
  return String(Math.max(0, Math.round(product.price / product.pack - cost)) / 10 ** decimals);
}

let added = 0;
/** A key that no line of this page has had: what was typed for a line that was left out is not another's. */
const nextKey = (): string => `n${++added}`;

export interface FillProps {
  products: Product[];
  /** The formulas to choose from, and what those on the page say. */
  names: { id: string; name: string }[];
  specs: Specs;
  few: Few;
  rates: Rates;
}

type Draws = ReturnType<typeof drawsFrom>;

/** Returns the rules of the fields: the aim and the spare, of each line what one earns and how many at least and at most, of each material how much is there. */
function fillRules(
  lines: readonly FillLine[],
  {
    materials,
    draws,
    spareNow,
    stocks,
    rates,
    units,
  }: { materials: ReturnType<typeof limitingFrom>; draws: Draws; spareNow: number; stocks: Stocks; rates: Rates; units: Formats },
): Record<string, FieldRule<unknown>> {
  const perLine = lines.flatMap((line): [string, FieldRule<unknown>][] => [
    [
      `${line.key}:worth`,
      orNothing({ ...moneyRule(units), initial: worthOf(line.product, draws(line, spareNow), stocks, rates, units.moneyDecimals()) }) as FieldRule<unknown>,
    ],
    [`${line.key}:least`, orNothing(countRule({ least: 0, most: 100_000, name: "jars" }))],
    [`${line.key}:most`, orNothing(countRule({ least: 0, most: 100_000, name: "jars" }))],
  ]);
  const perMaterial = materials.flatMap((material): [string, FieldRule<unknown>][] => {
    const there = stocks[material.id]?.onHand;
    const initial = there === undefined ? "" : material.counted ? String(Math.max(0, there)) : units.typed.about(Math.max(0, there));
    return [
      // Nothing typed means that it is not tracked, and does not limit.
      [`have:${material.id}`, orNothing(amountRule(material, units, initial, true))],
      [`use:${material.id}`, choiceRule(material.counted ? "no" : "yes")],
    ];
  });
  return {
    aim: choiceRule("use"),
    spare: percentRule({ least: 0, most: 100, name: "the extra" }, "5"),
    ...Object.fromEntries([...perLine, ...perMaterial]),
  };
}

/** The lines of a fill, what they take, and the fields for them. */
function useFillLines({ products, names, specs: firstSpecs, few, rates }: FillProps) {
  const units = useUnits();
  const { workshopId } = useWorkshop();
  const known = useShelf(few);
  const { shelf, stocks } = known;
  const [fault, setFault] = useState("");
  const [specs, setSpecs] = useState(firstSpecs);
  const [lines, setLines] = useState<FillLine[]>(() => firstLines(products, names, few.shelf, few.stocks));
  const [spareNow, setSpareNow] = useState(50_000);
  const draws = useMemo(() => drawsFrom(specs, shelf), [specs, shelf]);
  const wanted = [...new Set(lines.flatMap((line) => [...draws(line, spareNow).keys()]))].join();
  const materials = useMemo(() => limitingFrom(shelf, wanted.split(",")), [shelf, wanted]);
  const rules = useMemo(
    () => fillRules(lines, { materials, draws, spareNow, stocks, rates, units }),
    [lines, materials, stocks, units, draws, spareNow, rates],
  );
  const fields = useFields(rules);
  const spare = (fields.values as Record<string, unknown>).spare as number | undefined;
  if (spare !== undefined && spare !== spareNow) setSpareNow(spare);
  return {
    ...{ known, fault, setFault, lines, setLines, spareNow, draws, materials, fields },
    formulas: known.whole?.formulas ?? names,
    /** What a formula says is read once a line is made of it. */
    need: (id: string) => {
      known.look();
      if (specs[id]) return;
      void readSpec(workshopId, id)
        .then((found) => found && setSpecs((old) => ({ ...old, [id]: found })))
        .catch(() => setFault("That formula cannot be loaded. Choose it again in a moment."));
    },
  };
}

/** From what is there to what can be filled: the lines, what each alone comes to, and the mix that was found. */
export function useFill(props: FillProps) {
  const { names } = props;
  const state = useFillLines(props);
  const { known, lines, setLines, setFault, fields, materials, formulas, draws, spareNow, need } = state;
  const solver = useSolver();
  const [solved, setSolved] = useState<{ lines: FillLine[]; materials: (Supply & { id: string })[]; aim: Aim } | null>(null);
  const v = fields.values as Record<string, unknown>;
  const haveOf = (id: string) => v[`have:${id}`] as { mg: number } | null | undefined;
  const limiting = materials.filter((material) => haveOf(material.id));
  const containers = useMemo(() => containersOf(known.shelf, notToBeFilled), [known.shelf]);
  const containerOf = (line: FillLine) => containers.find((container) => container.id === line.container) ?? null;
  const nameOf = (line: FillLine) =>
    line.product?.name ?? `${formulas.find((formula) => formula.id === line.formula)?.name ?? ""}, ${containerOf(line)?.name ?? ""}`;
  const choiceOf = (line: FillLine): Choice => {
    const draw = draws(line, spareNow);
    return {
      name: nameOf(line),
      uses: limiting.map((item) => draw.get(item.id) ?? 0),
      worth: (v[`${line.key}:worth`] as number | null | undefined) ?? 0,
      least: (v[`${line.key}:least`] as number | null | undefined) ?? 0,
      most: (v[`${line.key}:most`] as number | null | undefined) ?? null,
    };
  };
  const find = () => {
    setFault("");
    if (!fields.check()) return;
    const aim = v.aim as Aim;
    const there = limiting.map((item) => ({
      id: item.id,
      name: item.name,
      have: haveOf(item.id)?.mg ?? 0,
      leftover: !item.counted && v[`use:${item.id}`] === "yes",
    }));
    try {
      const products = lines.map(choiceOf);
      if (aim === "earn" && products.every((product) => product.worth === 0)) return setFault("Type the profit on one of them.");
      const programme = leftoversProgramme(products, there, aim);
      setSolved({ lines: [...lines], materials: there, aim });
      solver.ask(programme);
    } catch (error) {
      if (!(error instanceof LeftoversError)) throw error;
      setFault(error.message);
    }
  };
  const add = (line: Omit<FillLine, "key">) => setLines((old) => [...old, { key: nextKey(), ...line }]);
  return {
    ...state,
    ...{ solver, solved, haveOf, limiting, containers, containerOf, nameOf, find },
    mixture: solver.state.is === "found" ? solver.state.mixture : null,
    /** How many of a line alone there is enough for; null if nothing limits it. */
    aloneOf: (line: FillLine) =>
      mostAlone(
        choiceOf(line).uses,
        limiting.map((item) => haveOf(item.id)?.mg ?? 0),
      ),
    change: (key: string, patch: Partial<FillLine>) => setLines((old) => old.map((fillLine) => (fillLine.key === key ? { ...fillLine, ...patch } : fillLine))),
    leaveOut: (key: string) => setLines((old) => old.filter((fillLine) => fillLine.key !== key)),
    addProduct: (product: Product) => {
      add({ product, formula: product.formulaId, container: product.containerId });
      need(product.formulaId);
    },
    addFormula: () => add({ product: null, formula: names[0]?.id ?? "", container: containers[0]?.id ?? "" }),
  };
}
export type FillState = ReturnType<typeof useFill>;
