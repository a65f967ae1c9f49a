"use client";

import {
  type Aim,
  type Choice,
  drawOfPiece,
  type FormulaSpec,
  good,
  LeftoversError,
  leftoversProgramme,
  mostAlone,
  notToBeFilled,
  parseCount,
  parseMoney,
  parsePercent,
  type Supply,
  WeighOutError,
  writeNumber,
  writePercent,
} from "@hearth/core";
import Link from "next/link";
import { useMemo, useState } from "react";
import { amountRule, VolumeNote } from "@/forms/amount";
import { Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import type { Shelf, Stocks } from "@/server/shelf";
import { Aside, Empty, Screen } from "@/ui/margin";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { familyOf, type PlanFormula, suitedWick } from "./model";
import { useSolver } from "./use-solver";

interface Formula {
  id: string;
  name: string;
  spec: FormulaSpec;
}
interface Line {
  key: string;
  formula: string;
  vessel: string;
}

/** From what is there to what can be filled: each product alone, then the mix that uses it up best or earns most. */
export function FillFromShelf({ formulas, shelf, stocks }: { formulas: Formula[]; shelf: Shelf; stocks: Stocks }) {
  const units = useUnits();
  const solver = useSolver();
  const [fault, setFault] = useState("");
  const [solved, setSolved] = useState<{ lines: Line[]; materials: (Supply & { id: string })[]; aim: Aim } | null>(null);
  const vessels = shelf.vessels.filter((one) => one.state === "for sale" && notToBeFilled(one) === null);
  const [lines, setLines] = useState<Line[]>(() => {
    // Two formulas, each in the two vessels that there is most of: something to choose between.
    const room = (one: (typeof vessels)[number]) => (stocks[one.id]?.onHand ?? 0) * one.workingFillMg;
    const full = [...vessels].sort((a, b) => room(b) - room(a)).slice(0, 2);
    return formulas.slice(0, 2).flatMap((one, row) => full.map((vessel, column) => ({ key: `p${row * 2 + column}`, formula: one.id, vessel: vessel.id })));
  });
  const draws = useMemo(() => {
    const cache = new Map<string, Map<string, number>>();
    return (formula: string, vessel: string, sparePpm: number): Map<string, number> => {
      const key = `${formula} ${vessel} ${sparePpm}`;
      const spec = formulas.find((one) => one.id === formula)?.spec;
      const row = shelf.vessels.find((one) => one.id === vessel);
      let draw = cache.get(key);
      if (!draw && spec && row) {
        try {
          const wick = suitedWick({ ...row, body: "vessel" }, familyOf({ spec } as PlanFormula, shelf), shelf.wicks);
          const chosenWicks = wick ? { wickId: wick.id, name: wick.name, kind: wick.kind, size: wick.size, count: row.wicks } : null;
          draw = drawOfPiece({ spec, vessel: { ...row, chosenWicks }, sparePpm }, shelf);
        } catch (error) {
          if (!(error instanceof WeighOutError)) throw error;
        }
        if (draw) cache.set(key, draw);
      }
      return draw ?? new Map();
    };
  }, [formulas, shelf]);
  const [spareNow, setSpareNow] = useState(50_000);
  const ids = [...new Set(lines.flatMap((line) => [...draws(line.formula, line.vessel, spareNow).keys()]))];
  const wanted = ids.join();
  const materials = useMemo(() => {
    const rows = [
      ...shelf.waxes.map((one) => ({ ...one, is: "wax" as const, density: undefined })),
      ...shelf.fragrances.map((one) => ({ ...one, is: "fragrance" as const, density: one.density })),
      ...shelf.additives.map((one) => ({ ...one, is: "additive" as const, density: undefined })),
      ...shelf.dyes.map((one) => ({ ...one, is: "dye" as const, density: undefined })),
      ...shelf.vessels.map((one) => ({ ...one, is: "vessel" as const, density: undefined })),
      ...shelf.wicks.map((one) => ({ ...one, is: "wick" as const, density: undefined })),
    ];
    return wanted.split(",").flatMap((id) => {
      const row = rows.find((one) => one.id === id);
      return row ? [{ id, name: row.name, is: row.is, counted: row.is === "vessel" || row.is === "wick", density: row.density }] : [];
    });
  }, [shelf, wanted]);
  const rules = useMemo((): Record<string, FieldRule<unknown>> => {
    const perLine = lines.flatMap((line): [string, FieldRule<unknown>][] => [
      [`${line.key}:worth`, orNothing({ initial: "", parse: (text: string) => parseMoney(text, units.currency ?? "EUR") })],
      [`${line.key}:least`, orNothing({ initial: "", parse: (text: string) => parseCount(text, { least: 0, most: 100_000, name: "jars" }) })],
      [`${line.key}:most`, orNothing({ initial: "", parse: (text: string) => parseCount(text, { least: 0, most: 100_000, name: "jars" }) })],
    ]);
    const perMaterial = materials.flatMap((one): [string, FieldRule<unknown>][] => {
      const there = stocks[one.id]?.onHand;
      const initial = there === undefined ? "" : one.counted ? String(Math.max(0, there)) : units.about(Math.max(0, there));
      return [
        // Nothing typed means that it is not tracked, and does not limit.
        [`have:${one.id}`, orNothing(amountRule(one, units, initial, true))],
        [`use:${one.id}`, { initial: one.counted ? "no" : "yes", parse: good }],
      ];
    });
    return {
      aim: { initial: "use", parse: good },
      spare: { initial: "5", parse: (text: string) => parsePercent(text, { least: 0, most: 100, name: "a spare" }) },
      ...Object.fromEntries([...perLine, ...perMaterial]),
    };
  }, [lines, materials, stocks, units]);
  const fields = useFields(rules);
  const v = fields.values as Record<string, unknown>;
  const spare = v.spare as number | undefined;
  if (spare !== undefined && spare !== spareNow) setSpareNow(spare);
  const haveOf = (id: string) => v[`have:${id}`] as { mg: number } | null | undefined;
  const limiting = materials.filter((one) => haveOf(one.id));
  const nameOf = (line: Line) =>
    `${formulas.find((one) => one.id === line.formula)?.name ?? ""}, ${shelf.vessels.find((one) => one.id === line.vessel)?.name ?? ""}`;
  const choiceOf = (line: Line): Choice => {
    const draw = draws(line.formula, line.vessel, spareNow);
    return {
      name: nameOf(line),
      uses: limiting.map((one) => draw.get(one.id) ?? 0),
      worth: (v[`${line.key}:worth`] as number | null | undefined) ?? 0,
      least: (v[`${line.key}:least`] as number | null | undefined) ?? 0,
      most: (v[`${line.key}:most`] as number | null | undefined) ?? null,
    };
  };
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
  const change = (key: string, patch: Partial<Line>) => setLines((old) => old.map((one) => (one.key === key ? { ...one, ...patch } : one)));

  if (formulas.length === 0 || vessels.length === 0)
    return (
      <Screen title="What can I fill?">
        <Empty
          title={formulas.length === 0 ? "No formula to fill with" : "No vessel to fill"}
          action={
            <Link className="act" data-next-step href={formulas.length === 0 ? "/formulas/new" : "/shelf"}>
              {formulas.length === 0 ? "Make a formula" : "Go to the shelf"}
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
              <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2">
                <p>
                  {solved.aim === "earn" ? "It earns " : "It uses up "}
                  <span className="figure text-[30px]">{solved.aim === "earn" ? units.money(mixture.value) : units.bulk(mixture.value)}</span>
                </p>
                {mixture.proved ? (
                  <p className="font-semibold text-inside">✓ proved: no mix does better</p>
                ) : (
                  <p className="font-semibold text-hot">
                    ▲ not proved in the time there was: a mix could reach up to {solved.aim === "earn" ? units.money(mixture.bound) : units.bulk(mixture.bound)}
                    , {writeNumber(((mixture.bound - mixture.value) / Math.max(1, mixture.value)) * 100, 2)} % more
                  </p>
                )}
                {[...new Set(solved.lines.filter((_line, index) => (mixture.counts[index] ?? 0) > 0).map((line) => line.formula))].map((id) => {
                  const fills = solved.lines.flatMap((line, index) =>
                    line.formula === id && (mixture.counts[index] ?? 0) > 0 ? [`${line.vessel}:${mixture.counts[index]}`] : [],
                  );
                  return (
                    <Link key={id} className="press" href={`/plan?formula=${id}&fill=${fills.join(",")}`}>
                      Plan {formulas.find((one) => one.id === id)?.name}
                    </Link>
                  );
                })}
              </div>
            ) : solver.state.is === "idle" && !fault ? (
              <p className="text-[15px] text-soft">
                With {writePercent(spareNow)} spare on every jar. Give a least where an order has to be met, and a most where the market ends.
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
              const fresh = at >= 0 && solved?.lines[at]?.formula === line.formula && solved?.lines[at]?.vessel === line.vessel;
              return (
                <li
                  key={line.key}
                  className="grid grid-cols-2 items-start gap-x-3 border-b border-line py-2 md:grid-cols-[minmax(0,1.5fr)_minmax(0,1.1fr)_92px_76px_76px_104px_96px_44px]"
                >
                  <Field
                    label={`Formula${index ? ` ${index + 1}` : ""}`}
                    name={`${line.key}:formula`}
                    value={line.formula}
                    onValue={(formula) => change(line.key, { formula })}
                    onLeave={() => undefined}
                    error=""
                    options={formulas.map((one) => ({ value: one.id, label: one.name }))}
                  />
                  <Field
                    label="in"
                    name={`${line.key}:vessel`}
                    value={line.vessel}
                    onValue={(vessel) => change(line.key, { vessel })}
                    onLeave={() => undefined}
                    error=""
                    options={vessels.map((one) => ({ value: one.id, label: one.name }))}
                  />
                  <Field label="One earns" {...fields.bind(`${line.key}:worth`)} inputMode="decimal" />
                  <Field label="Least" {...fields.bind(`${line.key}:least`)} inputMode="numeric" />
                  <Field label="Most" {...fields.bind(`${line.key}:most`)} inputMode="numeric" />
                  <div>
                    <div className="text-[15px] text-soft">alone</div>
                    <div className="figure text-[34px] leading-none" data-alone>
                      {alone ? alone.n : "–"}
                    </div>
                    <div className="text-[13px] leading-tight text-soft">{alone ? `${limiting[alone.limitedBy]?.name} ends` : "nothing limits it"}</div>
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
          <button
            type="button"
            className="press mt-2"
            onClick={() =>
              setLines((old) => [
                ...old,
                {
                  key: `p${old.reduce((most, one) => Math.max(most, Number(one.key.slice(1))), -1) + 1}`,
                  formula: formulas[0]?.id ?? "",
                  vessel: vessels[0]?.id ?? "",
                },
              ])
            }
          >
            + another product
          </button>
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
                  <span className="pt-[26px] font-semibold">
                    {one.name} <span className="font-normal text-soft">{one.is}</span>
                  </span>
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
