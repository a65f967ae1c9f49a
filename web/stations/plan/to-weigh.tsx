"use client";

import { type Amounts, bottlesFor, componentWorking, type JarCost, type MixedComponent, type Pitcher, splitIntoPitchers, writeNumber } from "@hearth/core";
import { PotStrip } from "@/ui/pot-strip";
import { useUnits, type Writers } from "@/ui/units";
import { Worked } from "@/ui/working";
import type { Shelf, Stocks } from "../shelf/read";

/** What rounding to the scale did to one weight: nothing where it is less than a thousandth. */
function roundingOf(part: MixedComponent, units: Writers): string | null {
  const off = part.mg - part.exactMg;
  if (part.count || Math.abs(off) < Math.max(5, part.exactMg * 1e-4)) return null;
  return `${off > 0 ? "+" : "−"}${units.about(Math.abs(off))} by rounding (${off > 0 ? "+" : "−"}${writeNumber(Math.abs(off / part.exactMg) * 100, 2)} %)`;
}

const sumOf = (pitcher: Pitcher, kind: string) => pitcher.components.reduce((sum, part) => sum + (part.kind === kind ? part.mg : 0), 0);

function Pitchers({ pitchers, resolutionUg }: { pitchers: Pitcher[]; resolutionUg: number }) {
  const units = useUnits();
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
            {(pitchers[0]?.components ?? []).map((part, at) => (
              <tr key={part.kind + part.name} className="border-t border-line">
                <th scope="row" className="py-1 text-left font-normal">
                  {part.name}
                </th>
                {pitchers.map((one, index) => (
                  <td key={index} className="figure pl-3 text-[18px] whitespace-nowrap">
                    {part.count ? `${one.components[at]?.count?.n} ${part.count.of}` : units.g(one.components[at]?.mg ?? 0, resolutionUg)}
                  </td>
                ))}
              </tr>
            ))}
            <tr className="border-t-2 border-ink">
              <th scope="row" className="py-1 text-left font-semibold">
                together
              </th>
              {pitchers.map((one, index) => (
                <td key={index} className="figure pl-3 text-[18px] whitespace-nowrap">
                  {units.g(one.totalMg, resolutionUg)}
                </td>
              ))}
            </tr>
            <tr className="border-t border-line text-soft">
              <th scope="row" className="py-1 text-left font-normal">
                load, of the wax
              </th>
              {pitchers.map((one, index) => (
                <td key={index} className="figure pl-3 text-[16px] whitespace-nowrap">
                  {writeNumber((sumOf(one, "fragrance") / sumOf(one, "wax")) * 100, 2)} %
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
  amounts: Amounts;
  vessels: { id: string; name: string; count: number }[];
  stocks: Stocks;
  fragrances: Shelf["fragrances"];
  resolutionUg: number;
  pitcherMg: number | null;
  /** The total is shared over the vessels, not the fills added up. */
  shared: boolean;
  jarCosts: JarCost[];
}

/** Every amount of a batch with its working, its rounding, what is there of it; then pitchers and cost. */
export function ToWeigh({ amounts, vessels, stocks, fragrances, resolutionUg, pitcherMg, shared, jarCosts }: Props) {
  const units = useUnits();
  const { components } = amounts;
  const size = components.length <= 2 ? "text-[64px]" : components.length <= 4 ? "text-[46px]" : "text-[36px]";
  let pitchers: Pitcher[] = [];
  if (pitcherMg && amounts.totalMg > pitcherMg) {
    try {
      pitchers = splitIntoPitchers(components, pitcherMg, resolutionUg, amounts.maxLoadPpm);
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
    }
  }
  return (
    <>
      <dl className="mt-2">
        {components.map((part, at) => {
          const worked = componentWorking(amounts, components, at, resolutionUg);
          const rounding = roundingOf(part, units);
          const oil = part.kind === "fragrance" ? fragrances.find((one) => one.id === part.id) : null;
          return (
            <div key={part.id} className="border-b border-line py-2">
              <dt className="flex justify-between gap-3 text-soft">
                <span>{part.name}</span>
                {stocks[part.id] ? <span className="text-[14px]">{units.bulk(stocks[part.id]?.onHand ?? 0)} there</span> : null}
              </dt>
              <dd className="flex flex-wrap items-baseline justify-between gap-x-3">
                <Worked steps={worked.steps} name={worked.name} label={part.name}>
                  <span className={`figure ${size} leading-none`}>{part.count ? part.count.n : units.gParts(part.mg, resolutionUg).figure}</span>
                  <span className="figure text-[26px]"> {part.count ? part.count.of : units.mass}</span>
                </Worked>
                <span className="text-right text-[14px] text-soft">
                  {rounding}
                  {oil?.density && part.mg > 0 ? (
                    <span className="block">
                      = {writeNumber((part.mg * 1_000) / oil.density, 1)} ml, {bottlesFor(part.mg, oil.density, 10)}{" "}
                      {bottlesFor(part.mg, oil.density, 10) === 1 ? "bottle" : "bottles"} of 10 ml
                    </span>
                  ) : null}
                </span>
              </dd>
            </div>
          );
        })}
        <div className="flex items-baseline justify-between border-b border-line py-2">
          <dt className="text-soft">total in the pot</dt>
          <dd>
            <Worked steps={amounts.working} name="total" label="the total">
              <span className="figure text-[30px]">{units.g(amounts.totalMg, resolutionUg)}</span>
            </Worked>
          </dd>
        </div>
        {shared
          ? vessels.map((one, index) => (
              <div key={one.id} className="flex items-baseline justify-between border-b border-line py-2">
                <dt className="text-soft">
                  shared over {one.count} {one.name}
                </dt>
                <dd>
                  <span className="figure text-[30px]">{units.g(amounts.fillsMg[index] ?? 0, 100_000)}</span> each
                </dd>
              </div>
            ))
          : null}
        <div className="flex items-baseline justify-between border-b border-line py-2">
          <dt className="text-soft">load really weighed</dt>
          <dd className="text-right">
            <Worked steps={amounts.working} name="load of the wax" label="the load of the wax">
              <span className="figure text-[24px]">{writeNumber(amounts.loadPercentOfWax, 2)} %</span>
            </Worked>{" "}
            of the wax
            <br />
            <Worked steps={amounts.working} name="load of the total" label="the load of the total">
              <span className="figure text-[24px]">{writeNumber(amounts.loadPercentOfTotal, 2)} %</span>
            </Worked>{" "}
            of the total
          </dd>
        </div>
        {jarCosts.map((one) => (
          <div key={one.vesselId} className="flex items-baseline justify-between border-b border-line py-1">
            <dt className="text-soft">one {vessels.find((vessel) => vessel.id === one.vesselId)?.name} costs, from the oldest lots</dt>
            <dd className="figure text-[22px]">{units.money(one.cost)}</dd>
          </div>
        ))}
      </dl>
      <div className="mt-3">
        <PotStrip parts={components} resolutionUg={resolutionUg} />
      </div>
      {pitchers.length > 0 ? <Pitchers pitchers={pitchers} resolutionUg={resolutionUg} /> : null}
    </>
  );
}
