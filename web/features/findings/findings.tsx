"use client";

import { DEFECTS } from "@hearth/core";
import type { CurveName, FlawCurve, FlawRate, FoundWithWords } from "@/server/findings/findings";
import type { PeriodChoice } from "@/server/http/period";
import { Link, useRouter } from "@/ui/address";
import { formatPercentShare, formatShareRange, formatShares } from "@/ui/logged";
import { Picture } from "@/ui/picture";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { type Formats, useUnits } from "@/ui/units";
import { Curve } from "./curve";
import { FormulaSelect } from "./formula-select";
import { PeriodPicker, periodAddress } from "./period";
import { type LevelRate, levelWords, Shares } from "./shares";
import { Ways } from "./ways";

interface FindingsProps {
  rates: FlawRate[];
  choice: PeriodChoice;
  defect: string | null;
  found: FoundWithWords[];
  curve: FlawCurve | null;
  curves: { name: CurveName; words: string }[];
  repairs: LevelRate[];
}

const SAYS: Record<FoundWithWords["finding"], string> = {
  differs: "it differs",
  "no difference seen": "no difference seen",
  "too little to tell": "too little to tell",
  "never varied": "never varied",
};

/** Returns how often a flaw occurs at the worst and the best level: "Above the range it occurs 4 times as often as inside the range." */
function describeLevels(units: Formats, levels: FoundWithWords["levels"]): string {
  const sorted = [...levels].sort((a, b) => b.share - a.share);
  const [worst, best] = [sorted[0], sorted.at(-1)];
  if (!worst || !best || worst === best) return "";
  const [high, low] = [levelWords(units, worst.level), levelWords(units, best.level)];
  if (best.k === 0) return `It occurred with “${high}”, and never with “${low}”.`;
  return `With “${high}” it occurred ${units.n(worst.share / best.share, worst.share / best.share < 3 ? 1 : 0)} times as often as with “${low}”.`;
}

/** In words what one factor says, never more than the numbers do. */
function Said({ one: item }: { one: FoundWithWords }) {
  const units = useUnits();
  if (item.finding === "too little to tell")
    return <p className="text-soft">Fewer than three batches on one side. Pour one more each way, with everything else the same.</p>;
  const chance = (item.adjusted ?? 1) < 0.001 ? "under 1 in 1000" : `about ${units.n((item.adjusted ?? 1) * 100, (item.adjusted ?? 1) < 0.1 ? 1 : 0)} in 100`;
  return (
    <p className={item.finding === "differs" ? "" : "text-soft"}>
      {item.finding === "differs" ? <strong>{describeLevels(units, item.levels)} Not a coincidence. </strong> : "The difference may be chance. "}
      <span className="text-soft">By chance alone, one this large would occur {chance}, with all comparisons here allowed for.</span>
      {item.together.length > 0 ? ` Always changed together with ${item.together.join(" and ")}, so their effects cannot be separated.` : ""}
    </p>
  );
}

/** The address of a page of findings, of another flaw, another measure or another formula. */
type Address = (next: { flaw?: string; by?: string; of?: string }) => string;

/** How often each flaw comes, to choose from. */
function Flaws({ rates, defect, address }: Pick<FindingsProps, "rates" | "defect"> & { address: Address }) {
  const units = useUnits();
  return (
    <section aria-label="Flaws">
      <ul className="grid gap-x-6 sm:grid-cols-2">
        {rates.map((rate) => {
          return (
            <li key={rate.defect} className="border-b border-line py-1">
              <Link href={address({ flaw: rate.defect })} className={`flex flex-wrap items-baseline gap-x-2 py-1 ${rate.defect === defect ? "font-bold" : ""}`}>
                <span>
                  {rate.defect === defect ? "▸ " : ""}
                  {rate.name}
                </span>
                <span className="figure ml-auto text-[18px]">{formatPercentShare(units, rate.share)}</span>
                <span className="text-[14px] text-soft">
                  {units.n(rate.jars, 0)} of {units.n(rate.of, 0)} jars, {rate.batches} batches; likely {formatShares(units, rate)}
                </span>
              </Link>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** How often the flaw comes by one measure of a formula's batches. */
function ByMeasure({
  curve,
  curves,
  name,
  address,
}: Pick<FindingsProps, "curves"> & { curve: NonNullable<FindingsProps["curve"]>; name: string; address: Address }) {
  const units = useUnits();
  const router = useRouter();
  /** The odds for one step of the unit that is shown: a degree Fahrenheit is five ninths of one Celsius. */
  const perStep = (odds: number) => (curve.name !== "load" && units.temperature === "F" ? odds ** (5 / 9) : odds);
  return (
    <section aria-label="Curve" className="mt-6">
      <div className="mb-2 flex flex-wrap items-center gap-x-6 gap-y-2">
        <h2>{name} by</h2>
        <select aria-label="By" className="entry !w-auto" value={curve.name} onChange={(event) => router.push(address({ by: event.target.value }))}>
          {curves.map((curve) => (
            <option key={curve.name} value={curve.name}>
              {curve.words}
            </option>
          ))}
        </select>
        <FormulaSelect label="Batches of" formulas={curve.formulas} value={curve.formula} onChange={(of) => router.push(address({ of }))} />
      </div>
      {curve.doses.length > 0 ? <Curve curve={curve} flaw={name} range={null} /> : null}
      {curve.why ? <p className="text-soft">{curve.why}</p> : null}
      {curve.odds ? (
        <p className="mt-1">
          <strong>
            {curve.odds.low <= 1 && curve.odds.high >= 1
              ? "No clear link: it may be chance."
              : `The higher the value, the ${curve.odds.value > 1 ? "more" : "less"} often it occurs: by itself not a coincidence.`}
          </strong>{" "}
          <span className="text-soft">
            One {curve.name === "load" ? "percentage point" : `°${units.temperature}`} more multiplies the odds by{" "}
            <span className="figure text-[20px]">{units.n(perStep(curve.odds.value), 2)}</span>, likely{" "}
            {formatShareRange(units, perStep(curve.odds.low), perStep(curve.odds.high), 2)}.
          </span>
        </p>
      ) : null}
    </section>
  );
}

/** By what the flaw differs, and of what it is not known. */
function ByWhatItDiffers({ found, name }: Pick<FindingsProps, "found"> & { name: string }) {
  const told = found.filter((item) => item.finding === "differs" || item.finding === "no difference seen");
  const constant = found.filter((item) => item.finding === "never varied");
  const rest = found.filter((item) => item.finding === "too little to tell");
  return (
    <section aria-label="What flaws go with" className="mt-6">
      <h2 className="border-b-[3px] border-ink pb-1">What {name} goes with</h2>
      <Picture
        name={`${name} by everything`}
        heads={["what", "level", "batches", "jars", "with the flaw", "share", "low", "high", "says"]}
        rows={found.flatMap((item) =>
          item.levels.map((level) => [item.words, level.level, level.batches, level.n, level.k, level.share, level.low, level.high, SAYS[item.finding]]),
        )}
        plain
      >
        {told.map((item) => (
          <article key={item.name} className="border-b border-line py-3">
            <h3 className={item.finding === "differs" ? "" : "font-semibold text-soft"}>
              {item.finding === "differs" ? "● " : "○ "}
              {item.words}: {SAYS[item.finding]}
            </h3>
            <Shares levels={item.levels} />
            <Said one={item} />
          </article>
        ))}
      </Picture>
      {rest.length > 0 ? (
        <details className="mt-3" open={told.length === 0}>
          <summary className="cursor-pointer font-semibold">Unknown: {rest.map((item) => item.words).join(", ")}</summary>
          {rest.map((item) => (
            <article key={item.name} className="border-b border-line py-2">
              <h3 className="font-semibold">
                {item.words}: {SAYS[item.finding]}
              </h3>
              {item.levels.length > 1 ? <Shares levels={item.levels} /> : null}
              <Said one={item} />
            </article>
          ))}
        </details>
      ) : null}
      {constant.length > 0 ? (
        <p className="mt-3 text-soft">
          Never varied, or not recorded, so that nothing can be compared: {constant.map((item) => item.words).join(", ")}. To learn about one, vary it in two
          batches with everything else the same.
        </p>
      ) : null}
    </section>
  );
}

/** Across all batches: how often each flaw is seen, and by what its rate differs. */
export function Findings({ rates, choice, defect, found, curve, curves, repairs }: FindingsProps) {
  const name = DEFECTS.find((item) => item.id === defect)?.name ?? "";
  const address: Address = (next) => periodAddress("/findings", { flaw: defect, by: curve?.name ?? null, of: curve?.formula ?? null, ...next }, choice);
  return (
    <PageLayout
      title="Findings"
      lead="How often flaws occur in inspected batches, and what they go with."
      side={
        <>
          <Aside title="How to read a line">
            The dot is the rate so far; the line is where the true rate is likely to be. Jars of one batch are alike, so they count for less than jars of
            different batches.
          </Aside>
          <Aside title="Many comparisons">
            With many things compared, one goes with by chance. Holm's method allows for that: what is said to differ here would be wrong in at most one
            workshop of twenty.
          </Aside>
          <Aside title="Not a proof">Changes made together cannot be separated. Change one thing at a time.</Aside>
        </>
      }
    >
      <Ways here="/findings" />
      <PeriodPicker path="/findings" asked={{ flaw: defect, by: curve?.name ?? null, of: curve?.formula ?? null }} choice={choice} />
      {rates.length === 0 ? (
        <Empty title={choice.name === "all" ? "Nothing to find yet" : "No flaw recorded in this period"}>
          <p>After inspections, this page shows how often flaws occur, and whether they go with hotter pours, a higher load or a cold room.</p>
        </Empty>
      ) : (
        <>
          <Flaws rates={rates} defect={defect} address={address} />
          {curve && defect ? <ByMeasure curve={curve} curves={curves} name={name} address={address} /> : null}
          {repairs.length > 0 ? (
            <section aria-label="Whether rework lasted" className="mt-6">
              <h2 className="border-b-[3px] border-ink pb-1">Whether rework of {name} lasted, at the recheck</h2>
              <Shares levels={repairs} />
            </section>
          ) : null}
          <ByWhatItDiffers found={found} name={name} />
        </>
      )}
    </PageLayout>
  );
}
