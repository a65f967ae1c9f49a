"use client";

import {
  type Amounts,
  type BatchPlan,
  bottlesFor,
  componentWorking,
  countUnit,
  countWords,
  namedLines,
  type Planned,
  type PotPlan,
  runningTotals,
  type WeighedComponent,
} from "@hearth/core";
import type { Shelf, Stocks } from "@/server/inventory/shelf";
import { PotStrip } from "@/ui/pot-strip";
import { type Formats, useUnits } from "@/ui/units";
import { Worked } from "@/ui/working";
import type { PlannedCost } from "./model";

/** Returns what rounding to the scale did to one weight: nothing where it is less than a thousandth. */
function roundingOf(part: WeighedComponent, units: Formats): string | null {
  const off = part.mg - part.exactMg;
  if (part.count || Math.abs(off) < Math.max(5, part.exactMg * 1e-4)) return null;
  return `${off > 0 ? "+" : "−"}${units.about(Math.abs(off))} from rounding (${off > 0 ? "+" : "−"}${units.n(Math.abs(off / part.exactMg) * 100, 2)} %)`;
}

type Pitcher = NonNullable<PotPlan["pitchers"]>[number];

function Pitchers({ pot, pitchers }: { pot: PotPlan; pitchers: Pitcher[] }) {
  const units = useUnits();
  const sumOf = (pitcher: Pitcher, kind: string) =>
    pitcher.components.reduce((sum, part) => sum + (pot.components.find((component) => component.id === part.id)?.kind === kind ? part.mg : 0), 0);
  return (
    <section className="mt-4" aria-label="Pitchers">
      <h3>{pitchers.length} pitchers, each weighed and scented on its own</h3>
      <div className="overflow-x-auto">
        <table className="mt-1 w-full text-right">
          <thead className="text-[14px] text-soft">
            <tr>
              <th className="text-left font-normal"> </th>
              {pitchers.map((_one, index) => (
                <th key={index} className="pl-3 font-normal">
                  {index + 1}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {pot.components.map((part) => (
              <tr key={part.id} className="border-t border-line">
                <th scope="row" className="py-1 text-left font-normal">
                  {part.name}
                </th>
                {pitchers.map((pitcher, index) => {
                  const share = pitcher.components.find((other) => other.id === part.id);
                  return (
                    <td key={index} className="figure pl-3 text-[18px] whitespace-nowrap">
                      {part.count ? countWords(share?.n ?? 0, part.count.of) : units.onScale(share?.mg ?? 0, part.scale)}
                    </td>
                  );
                })}
              </tr>
            ))}
            <tr className="border-t-2 border-ink">
              <th scope="row" className="py-1 text-left font-semibold">
                together
              </th>
              {pitchers.map((pitcher, index) => (
                <td key={index} className="figure pl-3 text-[18px] whitespace-nowrap">
                  {units.total(pot.components.map((part) => ({ ...part, mg: pitcher.components.find((other) => other.id === part.id)?.mg ?? 0 }))).main}
                </td>
              ))}
            </tr>
            <tr className="border-t border-line text-soft">
              <th scope="row" className="py-1 text-left font-normal">
                load, of the wax
              </th>
              {pitchers.map((pitcher, index) => (
                <td key={index} className="figure pl-3 text-[16px] whitespace-nowrap">
                  {units.n((sumOf(pitcher, "fragrance") / sumOf(pitcher, "wax")) * 100, 2)} %
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
    </section>
  );
}

interface Props {
  planned: Planned;
  plan: BatchPlan;
  stocks: Stocks;
  fragrances: Shelf["fragrances"];
  /** The total is shared over the products, not the fills added up. */
  shared: boolean;
  costs: PlannedCost[];
}

/** What goes into one pot: every amount with its working, its rounding, the scale it is weighed on, and what is there of it. */
function Pot({ amounts, pot, stocks, fragrances }: { amounts: Amounts; pot: PotPlan; stocks: Stocks; fragrances: Shelf["fragrances"] }) {
  const units = useUnits();
  const { components } = amounts;
  const size = components.length <= 2 ? "text-[60px]" : components.length <= 4 ? "text-[42px]" : "text-[34px]";
  const scales = new Set(components.filter((part) => !part.count).map((part) => part.scale.name));
  const total = units.total(components);
  const upBy = amounts.totalMg - amounts.askedMg;
  const totals = runningTotals(pot.components);
  return (
    <>
      <dl className="mt-2">
        {components.map((part, index) => {
          const worked = componentWorking(amounts, components, index, part.scale.resolutionUg);
          const figure = units.scaleParts(part.mg, part.scale);
          const beside = part.count ? "" : units.beside(part.mg, part.scale);
          const rounding = roundingOf(part, units);
          const oil = part.kind === "fragrance" ? fragrances.find((fragrance) => fragrance.id === part.id) : null;
          return (
            <div key={part.id} className="border-b border-line py-2">
              <dt className="flex justify-between gap-3 text-soft">
                <span>
                  {part.name}
                  {scales.size > 1 && !part.count ? <span className="text-[14px]">, on the {part.scale.name}</span> : null}
                </span>
                {stocks[part.id] ? <span className="text-[14px]">{units.bulk(stocks[part.id]?.onHand ?? 0)} in stock</span> : null}
              </dt>
              <dd className="flex flex-wrap items-baseline justify-between gap-x-3">
                <Worked steps={worked.steps} name={worked.name} label={part.name}>
                  <span className={`figure ${size} leading-none`}>{part.count ? part.count.n : figure.figure}</span>
                  <span className="figure text-[26px]"> {part.count ? countUnit(part.count.n, part.count.of) : figure.unit}</span>
                  {beside ? <span className="figure text-[20px] text-soft"> = {beside}</span> : null}
                </Worked>
                <span className="text-right text-[14px] text-soft">
                  {rounding}
                  {oil?.density && part.mg > 0 ? (
                    <span className="block">
                      = {units.volume((part.mg * 1_000) / oil.density)}, {bottlesFor(part.mg, oil.density, units.bottleMl)}{" "}
                      {bottlesFor(part.mg, oil.density, units.bottleMl) === 1 ? "bottle" : "bottles"} of {units.volume(units.bottleMl)}
                    </span>
                  ) : null}
                </span>
              </dd>
            </div>
          );
        })}
        <div className="flex items-baseline justify-between gap-x-4 border-b border-line py-2">
          <dt className="text-soft">
            total in the pot
            {upBy > 0 ? <span className="text-[14px]">, {units.about(upBy)} up to the next increment</span> : null}
          </dt>
          <dd className="shrink-0 whitespace-nowrap">
            <Worked steps={amounts.working} name="total" label="the total">
              <span className="figure text-[30px]">{total.main}</span>
              {total.beside ? <span className="figure text-[20px] text-soft"> = {total.beside}</span> : null}
            </Worked>
          </dd>
        </div>
        <div className="flex items-baseline justify-between border-b border-line py-2">
          <dt className="text-soft">actual fragrance load</dt>
          <dd className="text-right">
            <Worked steps={amounts.working} name="load of the wax" label="the load of the wax">
              <span className="figure text-[24px]">{units.n(amounts.loadPercentOfWax, 2)} %</span>
            </Worked>{" "}
            of the wax
            <br />
            <Worked steps={amounts.working} name="load of the total" label="the load of the total">
              <span className="figure text-[24px]">{units.n(amounts.loadPercentOfTotal, 2)} %</span>
            </Worked>{" "}
            of the total
          </dd>
        </div>
      </dl>
      {totals.size > 0 ? (
        <p className="mt-2 text-soft">
          Oils on one tare: the scale shows{" "}
          <span className="figure text-[20px] text-ink">
            {pot.components.flatMap((part) => (totals.has(part.id) ? [units.onScale(totals.get(part.id) ?? 0, part.scale)] : [])).join(" → ")}
          </span>
        </p>
      ) : null}
      <div className="mt-3">
        <PotStrip parts={components} />
      </div>
      {pot.pitchers ? <Pitchers pot={pot} pitchers={pot.pitchers} /> : null}
    </>
  );
}

/** What is added to the rest of another pot. */
function Rest({ pot, amounts, stocks }: { pot: PotPlan; amounts: Amounts; stocks: Stocks }) {
  const units = useUnits();
  return (
    <>
      <p className="mt-1">
        What is left of pot {(pot.restOf ?? 0) + 1}, about <span className="figure text-[24px]">{units.bulk(pot.baseMg ?? 0)}</span>. Add:
      </p>
      <dl>
        {pot.components.map((part) => {
          const figure = units.scaleParts(part.mg, part.scale);
          return (
            <div key={part.id} className="border-b border-line py-2">
              <dt className="flex justify-between gap-3 text-soft">
                <span>{part.name}</span>
                {stocks[part.id] ? <span className="text-[14px]">{units.bulk(stocks[part.id]?.onHand ?? 0)} in stock</span> : null}
              </dt>
              <dd>
                <span className="figure text-[42px] leading-none">{part.count ? part.count.n : figure.figure}</span>
                <span className="figure text-[26px]"> {part.count ? countUnit(part.count.n, part.count.of) : figure.unit}</span>
              </dd>
            </div>
          );
        })}
        <div className="flex items-baseline justify-between border-b border-line py-2">
          <dt className="text-soft">fragrance load then</dt>
          <dd>
            <span className="figure text-[24px]">{units.n(amounts.loadPercentOfWax, 2)} %</span> of the wax
          </dd>
        </div>
      </dl>
      <p className="mt-1 text-[15px] text-soft">At the bench the doses follow what is really left.</p>
    </>
  );
}

/** Every amount of a batch, pot by pot; then what one piece costs. */
export function ToWeigh({ planned, plan, stocks, fragrances, shared, costs }: Props) {
  const units = useUnits();
  return (
    <>
      {planned.pots.map((amounts, index) => (
        <div key={index}>
          {planned.pots.length > 1 ? (
            <h3 className="mt-3">
              Pot {index + 1}: {plan.pots[index]?.formulaName}
            </h3>
          ) : null}
          {plan.pots[index]?.restOf === undefined ? (
            <Pot amounts={amounts} pot={plan.pots[index] as PotPlan} stocks={stocks} fragrances={fragrances} />
          ) : (
            <Rest pot={plan.pots[index] as PotPlan} amounts={amounts} stocks={stocks} />
          )}
        </div>
      ))}
      <dl className="mt-2">
        {shared
          ? namedLines(plan.products).map((line) => (
              <div key={line.key} className="flex items-baseline justify-between border-b border-line py-2">
                <dt className="text-soft">
                  into {line.count} × {line.name}
                </dt>
                <dd>
                  <span className="figure text-[30px]">{units.about(line.fillMg)}</span> each
                </dd>
              </div>
            ))
          : null}
        {costs.map((cost) => (
          <div key={cost.key} className="flex items-baseline justify-between border-b border-line py-1">
            <dt className="text-soft">one {namedLines(plan.products).find((product) => product.key === cost.key)?.name} costs, from the oldest lots</dt>
            <dd className="text-right">
              <span className="figure text-[22px]">{units.money(cost.cost)}</span>
              {cost.margin ? (
                <span className={`block text-[14px] ${cost.margin.left < 0 ? "text-hot" : "text-soft"}`}>
                  {units.money(cost.margin.left)} of the price left, {units.n(cost.margin.share * 100, 0)} %
                </span>
              ) : null}
            </dd>
          </div>
        ))}
      </dl>
    </>
  );
}
