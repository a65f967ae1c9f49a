"use client";

import { THROW_FACTORS, type ThrowFactor, type ThrowLevel } from "@hearth/core";
import type { PeriodChoice } from "@/server/http/period";
import { Link } from "@/ui/address";
import { formatShareRange } from "@/ui/logged";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";
import { PeriodPicker, periodAddress } from "./period";
import { Ways } from "./ways";

/** A likely range wider than this many points says nothing of a score from 0 to 10. */
const USEFUL_WIDTH = 6;

/** "6.1 to 7.4", or why no likely range of the mean can be told. */
function likely({ low, high }: { low: number | null; high: number | null }, units: ReturnType<typeof useUnits>): string {
  if (low === null || high === null) return "one batch only";
  return high - low > USEFUL_WIDTH ? "too few batches to tell" : formatShareRange(units, low, high, 1);
}

/** How strong candles smelled, cold or hot, by what they were made of and how old they were. */
export function ThrowFindings({
  count,
  byFactor,
  of,
  choice,
}: {
  /** How many scores there are. */
  count: number;
  byFactor: readonly { factor: ThrowFactor; levels: ThrowLevel[] }[];
  of: "cold" | "hot";
  choice: PeriodChoice;
}) {
  const units = useUnits();
  return (
    <PageLayout
      title="Throw"
      lead="Scores out of ten, by wax, fragrance, load, wick and age: each batch counts once."
      side={
        <>
          <Aside title="One person's 9 is another's 7">Compare scores of the same people. A burn trial takes each person's own level out.</Aside>
          <Aside title="The age counts">A score belongs to the candle's age: at one day it can be faint.</Aside>
          <Aside title="Codes">Scores of a trial count here once its codes are revealed.</Aside>
        </>
      }
    >
      <Ways here="/findings/throw" />
      <PeriodPicker path="/findings/throw" asked={{ of }} choice={choice} />
      <nav aria-label="Which throw" className="mb-3 flex flex-wrap gap-2">
        {(["hot", "cold"] as const).map((item) => (
          <Link
            key={item}
            href={periodAddress("/findings/throw", { of: item }, choice)}
            className={item === of ? "press !bg-ink !text-sheet" : "press"}
            aria-current={item === of ? "page" : undefined}
          >
            {item === "hot" ? "Hot, burning" : "Cold, unlit"}
          </Link>
        ))}
      </nav>
      {count === 0 ? (
        <Empty title="No score yet">
          <p>
            {of === "hot" ? "Score the throw of a burning candle in a burn trial." : "Score the cold throw of a batch on the rack."} Then it is compared here.
          </p>
        </Empty>
      ) : (
        byFactor.map(({ factor, levels }) => {
          // An unlit candle's wick does not matter.
          if (of === "cold" && factor === "wick") return null;
          return (
            <section key={factor} aria-label={`By ${THROW_FACTORS[factor]}`} className="mt-5">
              <h2>By {THROW_FACTORS[factor]}</h2>
              {levels.length === 0 ? (
                <p className="text-soft">Not recorded for any score.</p>
              ) : (
                <WideTable
                  label={`Scores by ${THROW_FACTORS[factor]}`}
                  heads={[THROW_FACTORS[factor], "mean score", "likely", "scores", "batches", "people"]}
                  least={560}
                >
                  {levels.map((level) => (
                    <tr key={level.level} className="border-t border-line">
                      <th scope="row" className="py-2 pr-4">
                        {level.level}
                      </th>
                      <td className="figure pr-4 text-[22px]">{units.n(level.mean, 1)}</td>
                      <td className="pr-4">{likely(level, units)}</td>
                      <td className="pr-4">{level.n}</td>
                      <td className="pr-4">{level.batches}</td>
                      <td className="pr-4">{level.scorers}</td>
                    </tr>
                  ))}
                </WideTable>
              )}
              {levels.length === 1 ? <p className="text-[15px] text-soft">It was the same for all: nothing to compare.</p> : null}
            </section>
          );
        })
      )}
    </PageLayout>
  );
}
