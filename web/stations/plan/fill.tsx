"use client";

import {
  type Aim,
  type Choice,
  costOfProduct,
  good,
  LeftoversError,
  leftoversProgramme,
  mostAlone,
  notToBeFilled,
  type Rates,
  type Supply,
} from "@hearth/core";
import { useMemo, useState } from "react";
import { readSpec } from "@/catalogue/catalogue";
import { type Few, useShelf } from "@/catalogue/use-shelf";
import { amountRule, VolumeNote } from "@/forms/amount";
import { Chooser } from "@/forms/chooser";
import { Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { likeliest } from "@/forms/matches";
import { countRule, moneyRule, percentRule } from "@/forms/rules";
import { usePlace } from "@/log/place";
import type { Product } from "@/server/products";
import type { Stocks } from "@/server/shelf";
import { Link } from "@/ui/address";
import { commonScale, JarSection } from "@/ui/jar-section";
import { Aside, Empty, Screen } from "@/ui/margin";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { drawsFrom, type FillLine, firstLines, limitingFrom, type Specs } from "./fill-model";
import { FoundMix } from "./found-mix";
import { bodiesOf } from "./model";
import { useSolver } from "./use-solver";

/** How much of what is there the mix uses: the dark part is used. */
function UsedBar({ have, left }: { have: number; left: number }) {
  const used = have > 0 ? Math.max(0, Math.min(1, 1 - left / have)) : 0;
  return (
    <div aria-hidden="true" className="mt-1 h-[10px] max-w-[320px] border-2 border-ink bg-wax">
      <div className="h-full bg-ink" style={{ width: `${used * 100}%` }} />
    </div>
  );
}

/** What one piece of a product earns, as it is typed: its share of the pack's price, less what it costs from the oldest lots. Nothing below zero. */
function worthOf(product: Product | null, draw: ReadonlyMap<string, number>, stocks: Stocks, rates: Rates, decimals: number): string {
  if (product?.price == null) return "";
  const { cost } = costOfProduct(product, draw, (id) => stocks[id]?.left ?? [], rates);
  return String(Math.max(0, Math.round(product.price / product.pack - cost)) / 10 ** decimals);
}

let added = 0;
/** A key that no line of this page has had: what was typed for a line that was left out is not another's. */
const nextKey = (): string => `n${++added}`;

interface Props {
  products: Product[];
  /** The formulas to choose from, and what those on the page say. */
  names: { id: string; name: string }[];
  specs: Specs;
  few: Few;
  rates: Rates;
}

/** From what is there to what can be filled: each product alone, then the mix that uses it up best or earns most. */
export function FillFromShelf({ products, names, specs: firstSpecs, few, rates }: Props) {
  const units = useUnits();
  const { workshopId } = usePlace();
  const solver = useSolver();
  const known = useShelf(few);
  const { shelf, stocks, lately } = known;
  const [fault, setFault] = useState("");
  const [solved, setSolved] = useState<{ lines: FillLine[]; materials: (Supply & { id: string })[]; aim: Aim } | null>(null);
  const [specs, setSpecs] = useState(firstSpecs);
  const [lines, setLines] = useState<FillLine[]>(() => firstLines(products, names, few.shelf, few.stocks));
  const draws = useMemo(() => drawsFrom(specs, shelf), [specs, shelf]);
  const formulas = known.whole?.formulas ?? names;
  /** What a formula says is read once a line is made of it. */
  const need = (id: string) => {
    known.look();
    if (specs[id]) return;
    void readSpec(workshopId, id)
      .then((found) => found && setSpecs((old) => ({ ...old, [id]: found })))
      .catch(() => setFault("That formula cannot be read just now. Choose it again in a moment."));
  };
  const [spareNow, setSpareNow] = useState(50_000);
  const ids = [...new Set(lines.flatMap((line) => [...draws(line, spareNow).keys()]))];
  const wanted = ids.join();
  const materials = useMemo(() => limitingFrom(shelf, wanted.split(",")), [shelf, wanted]);
  const rules = useMemo((): Record<string, FieldRule<unknown>> => {
    const perLine = lines.flatMap((line): [string, FieldRule<unknown>][] => [
      [
        `${line.key}:worth`,
        orNothing({ ...moneyRule(units), initial: worthOf(line.product, draws(line, spareNow), stocks, rates, units.moneyDecimals) }) as FieldRule<unknown>,
      ],
      [`${line.key}:least`, orNothing(countRule({ least: 0, most: 100_000, name: "jars" }))],
      [`${line.key}:most`, orNothing(countRule({ least: 0, most: 100_000, name: "jars" }))],
    ]);
    const perMaterial = materials.flatMap((one): [string, FieldRule<unknown>][] => {
      const there = stocks[one.id]?.onHand;
      const initial = there === undefined ? "" : one.counted ? String(Math.max(0, there)) : units.typed.about(Math.max(0, there));
      return [
        // Nothing typed means that it is not tracked, and does not limit.
        [`have:${one.id}`, orNothing(amountRule(one, units, initial, true))],
        [`use:${one.id}`, { initial: one.counted ? "no" : "yes", parse: good }],
      ];
    });
    return {
      aim: { initial: "use", parse: good },
      spare: percentRule({ least: 0, most: 100, name: "a spare" }, "5"),
      ...Object.fromEntries([...perLine, ...perMaterial]),
    };
  }, [lines, materials, stocks, units, draws, spareNow, rates]);
  const fields = useFields(rules);
  const v = fields.values as Record<string, unknown>;
  const spare = v.spare as number | undefined;
  if (spare !== undefined && spare !== spareNow) setSpareNow(spare);
  const haveOf = (id: string) => v[`have:${id}`] as { mg: number } | null | undefined;
  const limiting = materials.filter((one) => haveOf(one.id));
  const bodies = useMemo(() => bodiesOf(shelf, notToBeFilled), [shelf]);
  const bodyOf = (line: FillLine) => bodies.find((one) => one.id === line.body) ?? null;
  const nameOf = (line: FillLine) => line.product?.name ?? `${formulas.find((one) => one.id === line.formula)?.name ?? ""}, ${bodyOf(line)?.name ?? ""}`;
  const choiceOf = (line: FillLine): Choice => {
    const draw = draws(line, spareNow);
    return {
      name: nameOf(line),
      uses: limiting.map((one) => draw.get(one.id) ?? 0),
      worth: (v[`${line.key}:worth`] as number | null | undefined) ?? 0,
      least: (v[`${line.key}:least`] as number | null | undefined) ?? 0,
      most: (v[`${line.key}:most`] as number | null | undefined) ?? null,
    };
  };
  const scale = commonScale(
    lines.flatMap((line) => bodyOf(line) ?? []),
    60,
    72,
  );
  const write = (one: { counted: boolean }, amount: number) => (one.counted ? String(amount) : units.bulk(amount));

  const find = () => {
    setFault("");
    if (!fields.check()) return;
    const aim = v.aim as Aim;
    const there = limiting.map((one) => ({
      id: one.id,
      name: one.name,
      have: haveOf(one.id)?.mg ?? 0,
      leftover: !one.counted && v[`use:${one.id}`] === "yes",
    }));
    try {
      const products = lines.map(choiceOf);
      if (aim === "earn" && products.every((one) => one.worth === 0)) return setFault("Type what one of them earns, so that the mix can be weighed by it.");
      const programme = leftoversProgramme(products, there, aim);
      setSolved({ lines: [...lines], materials: there, aim });
      solver.ask(programme);
    } catch (error) {
      if (!(error instanceof LeftoversError)) throw error;
      setFault(error.message);
    }
  };
  const change = (key: string, patch: Partial<FillLine>) => setLines((old) => old.map((one) => (one.key === key ? { ...one, ...patch } : one)));

  if (names.length === 0 || bodies.length === 0)
    return (
      <Screen title="What can I fill?">
        <Empty
          title={names.length === 0 ? "No formula to fill with" : "No vessel to fill"}
          action={
            <Link className="act" data-next-step href={names.length === 0 ? "/formulas/new" : "/shelf"}>
              {names.length === 0 ? "Make a formula" : "Go to the shelf"}
            </Link>
          }
        >
          <p>
            From what is there, the program works out how many of each you can make, and which mix uses it up best. It needs formulas and vessels to choose
            from.
          </p>
        </Empty>
      </Screen>
    );
  const mixture = solver.state.is === "found" ? solver.state.mixture : null;
  return (
    <Screen
      title="What can I fill?"
      lead="From what is there to what can be made of it."
      actions={
        <Link className="press" href="/plan">
          Back to the plan
        </Link>
      }
      side={
        <>
          <Aside title="Two questions">
            Beside each product stands how many of it alone there is enough for. Which <em>mix</em> uses everything up best, or earns most, is found by a solver
            that looks through all of them.
          </Aside>
          <Aside title="What does not limit">
            A material whose amount is empty is taken as plentiful. Amounts come from the stock; type over them to try something out.
          </Aside>
          <Aside title="Whole grams">Weighed in whole grams, a batch can ask for a gram more than its jars together. Leave a few grams over.</Aside>
        </>
      }
    >
      <form
        ref={fields.form}
        onSubmit={(event) => {
          event.preventDefault();
          find();
        }}
      >
        <section className="sheet mb-6" aria-label="The mix">
          <div className="grid items-start gap-x-4 sm:grid-cols-[minmax(0,1fr)_110px_auto]">
            <Field
              label="The mix that"
              {...fields.bind("aim")}
              options={[
                { value: "use", label: "uses most of it up" },
                { value: "earn", label: "earns most" },
              ]}
            />
            <Field label="Spare" unit="%" {...fields.bind("spare")} inputMode="decimal" />
            {solver.state.is === "looking" ? (
              <button type="button" className={press({ size: "gloved", className: "mt-[20px]" })} onClick={solver.stop}>
                Looking for it: stop
              </button>
            ) : (
              <button type="submit" className="act mt-[20px]" data-next-step disabled={lines.length === 0}>
                Find the mix
              </button>
            )}
          </div>
          <div aria-live="polite" className="mt-1">
            {fault ? <p className="font-semibold text-hot">▲ {fault}</p> : null}
            {solver.state.is === "failed" ? <p className="font-semibold text-hot">▲ {solver.state.message}</p> : null}
            {mixture && solved ? (
              <FoundMix mixture={mixture} aim={solved.aim} lines={solved.lines} formulas={formulas} />
            ) : solver.state.is === "idle" && !fault ? (
              <p className="text-[15px] text-soft">
                With {units.percent(spareNow)} spare on every jar. Give a least where an order has to be met, and a most where the market ends.
              </p>
            ) : null}
          </div>
        </section>
        <section aria-label="Products">
          <h2 className="border-b-[3px] border-ink pb-1">What it could become</h2>
          <ul>
            {lines.map((line, index) => {
              const alone = mostAlone(
                choiceOf(line).uses,
                limiting.map((one) => haveOf(one.id)?.mg ?? 0),
              );
              const at = solved?.lines.findIndex((one) => one.key === line.key) ?? -1;
              const fresh = at >= 0 && solved?.lines[at]?.formula === line.formula && solved?.lines[at]?.body === line.body;
              const body = bodyOf(line);
              return (
                <li
                  key={line.key}
                  className="grid grid-cols-2 items-center gap-x-3 border-b border-line py-2 md:grid-cols-[76px_minmax(0,1fr)_92px_76px_76px_104px_96px_44px]"
                >
                  <div className="flex justify-center max-md:hidden">
                    {body ? <JarSection {...body} wicks={null} headspaceUm={null} fillMg={body.workingFillMg} scale={scale} /> : null}
                  </div>
                  {line.product ? (
                    <div className="min-w-0 max-md:col-span-2">
                      <div className="text-[18px] font-bold break-words">{line.product.name}</div>
                      <div className="text-[15px] text-soft">
                        {line.product.formulaName} in {body?.name ?? "something no longer here"}
                      </div>
                    </div>
                  ) : (
                    <div className="min-w-0 max-md:col-span-2">
                      <Chooser
                        label={`Formula${index ? ` ${index + 1}` : ""}`}
                        value={line.formula}
                        options={formulas.map((one) => ({ value: one.id, name: one.name }))}
                        onLook={known.look}
                        onValue={(formula) => {
                          change(line.key, { formula });
                          need(formula);
                        }}
                      />
                      <Chooser
                        label="in"
                        value={line.body}
                        options={likeliest(bodies, lately, (id) => stocks[id]?.onHand).map((one) => ({
                          value: one.id,
                          name: one.name,
                          note: stocks[one.id] ? `${stocks[one.id]?.onHand} on hand` : units.g(one.workingFillMg),
                        }))}
                        onLook={known.look}
                        onValue={(id) => change(line.key, { body: id })}
                      />
                    </div>
                  )}
                  <Field label="One earns" {...fields.bind(`${line.key}:worth`)} inputMode="decimal" hint="Price less cost." />
                  <Field label="Least" {...fields.bind(`${line.key}:least`)} inputMode="numeric" />
                  <Field label="Most" {...fields.bind(`${line.key}:most`)} inputMode="numeric" />
                  <div>
                    <div className="text-[15px] text-soft">alone</div>
                    <div className="figure text-[34px] leading-none" data-alone>
                      {alone ? alone.n : "–"}
                    </div>
                    <div className="text-[13px] leading-tight text-soft">{alone ? `limited by ${limiting[alone.limitedBy]?.name}` : "nothing limits it"}</div>
                  </div>
                  <div aria-live="polite">
                    <div className="text-[15px] font-semibold">in the mix</div>
                    <div className="figure text-[44px] leading-none text-inside">{mixture && fresh ? mixture.counts[at] : "–"}</div>
                  </div>
                  <button
                    type="button"
                    className="press mt-[26px] !px-0"
                    aria-label={`Leave out ${nameOf(line)}`}
                    onClick={() => setLines((old) => old.filter((one) => one.key !== line.key))}
                  >
                    ✕
                  </button>
                </li>
              );
            })}
          </ul>
          <div className="mt-3 grid items-end gap-3 sm:grid-cols-[minmax(0,360px)_auto]">
            <Chooser
              label="Another product"
              value=""
              options={(known.whole?.products ?? products)
                .filter((one) => !one.putAway && !lines.some((line) => line.product?.id === one.id))
                .map((one) => ({ value: one.id, name: one.name, note: one.formulaName }))}
              onLook={known.look}
              onValue={(id) => {
                const product = (known.whole?.products ?? products).find((one) => one.id === id);
                if (!product) return;
                setLines((old) => [...old, { key: nextKey(), product, formula: product.formulaId, body: product.bodyId }]);
                need(product.formulaId);
              }}
            />
            <button
              type="button"
              className="press mb-6"
              onClick={() => setLines((old) => [...old, { key: nextKey(), product: null, formula: names[0]?.id ?? "", body: bodies[0]?.id ?? "" }])}
            >
              + a formula in a vessel
            </button>
          </div>
        </section>
        <section className="mt-6" aria-label="What is there">
          <h2 className="border-b-[3px] border-ink pb-1">What is there</h2>
          <ul>
            {materials.map((one) => {
              const row = solved?.materials.findIndex((other) => other.id === one.id) ?? -1;
              return (
                <li
                  key={one.id}
                  className="grid grid-cols-[minmax(0,1fr)_120px] items-start gap-x-4 border-b border-line py-1 sm:grid-cols-[minmax(0,1fr)_130px_110px_110px]"
                >
                  <div className="pt-[26px]">
                    <span className="font-semibold">{one.name}</span> <span className="text-soft">{one.is}</span>
                    {mixture && row >= 0 ? <UsedBar have={haveOf(one.id)?.mg ?? 0} left={mixture.left[row] ?? 0} /> : null}
                  </div>
                  <Field label="There" unit={one.counted ? "pieces" : units.mass} {...fields.bind(`have:${one.id}`)} placeholder="plenty" />
                  {one.counted ? (
                    <span />
                  ) : (
                    <Field
                      label="Use it up"
                      {...fields.bind(`use:${one.id}`)}
                      options={[
                        { value: "yes", label: "yes" },
                        { value: "no", label: "no" },
                      ]}
                    />
                  )}
                  <div className="text-right">
                    <div className="text-[15px] text-soft">left over</div>
                    <div className="figure text-[24px]">{mixture && row >= 0 ? write(one, mixture.left[row] ?? 0) : "–"}</div>
                  </div>
                  {one.density != null ? (
                    <div className="col-span-full">
                      <VolumeNote amount={(haveOf(one.id) as never) ?? undefined} density={one.density} />
                    </div>
                  ) : null}
                </li>
              );
            })}
          </ul>
        </section>
      </form>
    </Screen>
  );
}
