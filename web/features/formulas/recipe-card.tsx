"use client";

import { rangeOfStep, recorderOf, type StepRecord, timesOf, writeDose, writeDuration } from "@hearth/core";
import { useWorkshop } from "@/log/workshop";
import type { RecipeCard as Card, CardPart } from "@/server/formulas/recipe-card";
import { Link } from "@/ui/address";
import { PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";

const KIND_WORDS: Record<CardPart["kind"], string> = { wax: "Wax", fragrance: "Scent", additive: "Additive", dye: "Color" };
const TEST_WORDS = { tested: "✓ tested", "test due": "test due", failed: "✕ failed" } as const;
/** As many products stand side by side on a sheet. */
const MAX_CANDLES = 4;

/** The temperatures and times of the card, in the order of the work. */
function Work({ card }: { card: Card }) {
  const units = useUnits();
  const { process } = card.spec;
  const range = (value: StepRecord) => {
    const step = recorderOf(process.steps, value);
    const found = step && rangeOfStep(step);
    return found ? units.range(found) : "";
  };
  const times = timesOf(process);
  const lines = [
    ["Heat to", range("heat_c")],
    ["Add scent at", range("add_c")],
    ["Pour at", range("pour_c")],
    ["Maximum", units.t(process.ceiling)],
    ["Set", times.set > 0 ? writeDuration(times.set) : ""],
    ["Cure", times.recommendedCure > 0 ? `${writeDuration(times.leastCure)} at least, ${writeDuration(times.recommendedCure)} recommended` : ""],
  ].filter(([, value]) => value !== "");
  return (
    <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-1">
      {lines.map(([words, value]) => (
        <div key={words} className="contents">
          <dt className="text-soft">{words}</dt>
          <dd className="figure text-[19px]">{value}</dd>
        </div>
      ))}
    </dl>
  );
}

/** One formula on one page: what goes in, how it is worked, in which candles, with its picture. For A4 and Letter paper, and a phone. */
export function RecipeCard({ card }: { card: Card }) {
  const units = useUnits();
  const { workshopId } = useWorkshop();
  const shown = card.candles.slice(0, MAX_CANDLES);
  const shareOf = ({ perPound, ppm }: CardPart): string => {
    if (perPound) return writeDose({ by: perPound.of, amount: perPound.n }, units.mass).replace(/ of$/, "");
    return ppm === null ? "" : units.percent(ppm, 1);
  };
  return (
    <PageLayout
      title={card.name}
      lead={`Recipe card, version ${card.number}. Amounts are for one candle, without extra.`}
      actions={
        <>
          <Link className="press" href={`/formulas/${card.id}`}>
            Back to the formula
          </Link>
          <button type="button" className="action-button" onClick={() => print()}>
            Print card
          </button>
        </>
      }
    >
      <article className="sheet max-w-[820px] break-inside-avoid print:max-w-none print:p-0" aria-label={`Recipe card of ${card.name}`}>
        <div className="grid gap-5 sm:grid-cols-[minmax(0,1fr)_240px] print:grid-cols-[minmax(0,1fr)_60mm]">
          <div className="min-w-0">
            <div className="overflow-x-auto">
              <table className="w-full text-left">
                <thead className="text-[14px] text-soft">
                  <tr>
                    <th className="pr-3 font-normal">of the wax</th>
                    <th className="font-normal">material</th>
                    {shown.map((candle) => (
                      <th key={candle.productId} className="max-w-[120px] pl-3 text-right font-normal">
                        {candle.container}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {card.parts.map((part) => (
                    <tr key={part.id} className="border-t border-line align-baseline">
                      <td className="py-1 pr-3 whitespace-nowrap">{shareOf(part)}</td>
                      <th scope="row" className="py-1 text-left">
                        <span className="font-semibold">{part.name}</span> <span className="text-[13px] font-normal text-soft">{KIND_WORDS[part.kind]}</span>
                      </th>
                      {shown.map((candle) => (
                        <td key={candle.productId} className="figure py-1 pl-3 text-right text-[19px] whitespace-nowrap">
                          {part.perPound ? "" : candle.amounts[part.id] === undefined ? "" : units.about(candle.amounts[part.id] as number)}
                        </td>
                      ))}
                    </tr>
                  ))}
                  {shown.length > 0 ? (
                    <tr className="border-t-[3px] border-ink align-baseline">
                      <td />
                      <th scope="row" className="py-1 text-left">
                        Fill
                      </th>
                      {shown.map((candle) => (
                        <td key={candle.productId} className="figure py-1 pl-3 text-right text-[19px] whitespace-nowrap">
                          {units.about(candle.fillMg)}
                        </td>
                      ))}
                    </tr>
                  ) : null}
                </tbody>
              </table>
            </div>
            {shown.length > 0 ? (
              <ul className="mt-4">
                {shown.map((candle) => (
                  <li key={candle.productId} className="flex flex-wrap justify-between gap-x-4 border-b border-line py-1">
                    <span className="min-w-0 break-words">
                      <span className="font-semibold">{candle.container}</span>
                      {candle.wick ? `: ${candle.wick}, ${TEST_WORDS[candle.wickTest]}` : ": no wick"}
                    </span>
                    <span className="whitespace-nowrap">
                      {candle.cost === null ? (
                        <span className="text-soft">cost not known</span>
                      ) : (
                        `${units.money(candle.cost)}${candle.pack > 1 ? ` for a pack of ${candle.pack}` : ""}`
                      )}
                    </span>
                  </li>
                ))}
              </ul>
            ) : (
              <p className="mt-4 text-soft">Make a product of it to see amounts and cost of one candle.</p>
            )}
          </div>
          <div className="min-w-0">
            {card.picture ? (
              // A picture of a note is kept as it was sent; it is no asset of the program.
              <img
                src={`/api/workshops/${workshopId}/pictures/${card.picture.id}`}
                width={card.picture.width}
                height={card.picture.height}
                alt={`Photograph of ${card.name}`}
                className="mb-4 h-auto w-full"
              />
            ) : (
              <p className="unprinted mb-4 border border-dashed border-line p-4 text-[15px] text-soft">
                Add a photograph to a note of its product, and it stands here.
              </p>
            )}
            <Work card={card} />
          </div>
        </div>
        {card.spec.notes ? <p className="mt-4 border-t border-line pt-2 whitespace-pre-wrap">{card.spec.notes}</p> : null}
        <p className="mt-3 text-[14px] text-soft">Temperatures are of the wax. The suppliers' data and safety data sheets come first.</p>
      </article>
    </PageLayout>
  );
}
