"use client";

import { countOf, THROW_COLUMNS, type ThrowColumn } from "@hearth/core";
import { useState } from "react";
import { ShowAll } from "@/catalogue/find-bar";
import type { OpenedFigure, WaxScore } from "@/server/findings/scoreboard";
import type { PeriodChoice } from "@/server/http/period";
import { Link } from "@/ui/address";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";
import { PeriodPicker, periodAddress } from "./period";
import { type ComparedWaxes, type OpenedProps, type ShownFigure, shownScore, shownShare, shownTemperature } from "./scoreboard-model";
import { WaxCard } from "./wax-card";
import { Ways } from "./ways";

const PATH = "/findings/scoreboard";
/** So many wicks that passed stand in a line; the rest is counted. */
const SHOWN_WICKS = 3;
function Figure({ shown, href, of }: { shown: ShownFigure | null; href: string; of: string }) {
  if (!shown) return <span className="text-soft">–</span>;
  return (
    <>
      <Link href={href} aria-label={`${of}: ${shown.figure}, show its batches`} className="figure text-[19px] underline">
        {shown.figure}
      </Link>
      <span className="block text-[13px] leading-tight text-soft">{shown.below}</span>
    </>
  );
}

/** Both columns of one throw in one cell, each said by what it is of. */
function Throws({ line, of, hrefOf }: { line: WaxScore; of: "cold" | "hot"; hrefOf: (figure: OpenedFigure) => string }) {
  const units = useUnits();
  const columns = THROW_COLUMNS.filter((column) => column.of === of && line.throws[column.key]);
  if (columns.length === 0) return <span className="text-soft">–</span>;
  return columns.map((column) => (
    <span key={column.key} className="block">
      <Figure shown={shownScore(units, line.throws[column.key as ThrowColumn])} href={hrefOf(column.key)} of={`${line.wax}, ${column.words}`} />
      <span className="block text-[13px] leading-tight">{column.words.replace(/^\w+, /, "")}</span>
    </span>
  ));
}

const FIGURE_WORDS: Record<OpenedFigure, string> = {
  batches: "jars",
  pour: "poured at",
  add: "fragrance added at",
  tops: "jars with a smooth top",
  wet: "jars without wet spots",
  coldYoung: "cold throw, under a week",
  coldOld: "cold throw, a week or more",
  hotSmall: "hot throw, small room",
  hotLarge: "hot throw, large room",
};

/** The batches behind a figure. */
function Opened({ opened, closeHref, allHref }: { opened: OpenedProps; closeHref: string; allHref: string }) {
  const units = useUnits();
  const isTemperature = opened.figure === "pour" || opened.figure === "add";
  return (
    <section className="mt-6" aria-label={`Batches of ${opened.wax}`}>
      <div className="flex flex-wrap items-baseline justify-between gap-3 border-b-[3px] border-ink pb-1">
        <h2>
          {opened.wax}: {FIGURE_WORDS[opened.figure]}
        </h2>
        <Link href={closeHref}>Close</Link>
      </div>
      <table className="mt-2 w-full text-left">
        <tbody>
          {opened.batches.map((batch) => (
            <tr key={batch.id} className="border-t border-line">
              <td className="py-1 pr-3">
                <Link href={`/records/${batch.id}`}>
                  Batch {batch.number}: {batch.title}
                </Link>
              </td>
              <td className="pr-3 whitespace-nowrap text-soft">{units.day(batch.pouredAt)}</td>
              <td className="figure text-right text-[19px]">
                {batch.value === null
                  ? ""
                  : isTemperature
                    ? units.t(batch.value * 100)
                    : `${units.n(batch.value, 1)}${batch.of === null ? "" : ` of ${batch.of}`}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <ShowAll left={opened.total - opened.batches.length} href={allHref} />
    </section>
  );
}

/** One line for each wax or blend; each figure opens to its batches, and two lines make a card. */
export function Scoreboard({
  lines,
  opened,
  compared,
  choice,
}: {
  lines: readonly WaxScore[];
  opened: OpenedProps | null;
  compared: ComparedWaxes | null;
  choice: PeriodChoice;
}) {
  const units = useUnits();
  const [chosen, setChosen] = useState<readonly string[]>(compared ? [compared.a, compared.b] : []);
  const [a, b] = compared ? [lines.find((line) => line.wax === compared.a), lines.find((line) => line.wax === compared.b)] : [];
  const isShown = compared !== null && chosen.length === 2 && chosen.includes(compared.a) && chosen.includes(compared.b);
  const hrefOf = (wax: string) => (figure: OpenedFigure) => periodAddress(PATH, { wax, figure, a: compared?.a ?? null, b: compared?.b ?? null }, choice);
  const choose = (wax: string, isChosen: boolean) =>
    setChosen((old) => (isChosen ? [...old.filter((item) => item !== wax), wax].slice(-2) : old.filter((item) => item !== wax)));
  return (
    <PageLayout
      title="Wax scoreboard"
      lead="What your own batches say of each wax and blend."
      side={
        <>
          <Aside title="Likely ranges">
            A figure from few batches has a wide range. Jars of one batch are alike, so ranges go by how batches differ, not by the number of jars.
          </Aside>
          <Aside title="Throw">Each person's own level is taken out where several scored. A score without an age or a known room is left out.</Aside>
          <Aside title="Other things differ too">
            Waxes were poured in other vessels, at other temperatures and with other scents. For an answer about wax alone, burn two in one trial.
          </Aside>
        </>
      }
    >
      <Ways here={PATH} />
      <PeriodPicker path={PATH} asked={{}} choice={choice} />
      {a && b && compared ? <WaxCard a={a} b={b} differences={compared.differences} /> : null}
      {lines.length === 0 ? (
        <Empty
          title="No batch poured yet"
          action={
            <Link className="press" href="/records/notebook">
              Import a notebook
            </Link>
          }
        >
          <p>Pour a batch, or bring in the batches that you wrote down before. Each wax then has a line here.</p>
        </Empty>
      ) : (
        <>
          <div className="unprinted mt-3 flex flex-wrap items-center gap-3">
            {chosen.length === 2 && !isShown ? (
              <Link className="action-button" href={periodAddress(PATH, { a: chosen[0] as string, b: chosen[1] as string }, choice)} data-next-step>
                Compare {chosen[0]} and {chosen[1]}
              </Link>
            ) : (
              <p className="text-soft">{isShown ? "Tick two others to compare those." : "Tick two waxes to compare them on one card."}</p>
            )}
          </div>
          <div className="unprinted">
            <WideTable
              label="Waxes"
              heads={["wax or blend", "poured at", "fragrance at", "smooth tops", "no wet spots", "cold throw", "hot throw", "wick that passed", "cost"]}
              least={880}
            >
              {lines.map((line) => {
                const href = hrefOf(line.wax);
                return (
                  <tr key={line.wax} className="border-t border-line align-top">
                    <th scope="row" className="max-w-[180px] py-2 pr-3 text-left break-words">
                      <label className="flex items-start gap-2">
                        <input
                          type="checkbox"
                          className="mt-1 h-5 w-5 flex-none"
                          checked={chosen.includes(line.wax)}
                          onChange={(event) => choose(line.wax, event.target.checked)}
                        />
                        <span className="text-[17px]">{line.wax}</span>
                      </label>
                      <Link href={href("batches")} className="ml-7 block text-[14px] font-normal underline">
                        {countOf(line.batches, "batch", "batches")}
                      </Link>
                      {line.fromNotes > 0 ? <span className="ml-7 block text-[13px] font-normal text-soft">{line.fromNotes} from notes</span> : null}
                    </th>
                    <td className="py-2 pr-3">
                      <Figure shown={shownTemperature(units, line.pour)} href={href("pour")} of={`${line.wax}, poured at`} />
                    </td>
                    <td className="py-2 pr-3">
                      <Figure shown={shownTemperature(units, line.add)} href={href("add")} of={`${line.wax}, fragrance at`} />
                    </td>
                    <td className="py-2 pr-3">
                      <Figure shown={shownShare(units, line.smoothTops)} href={href("tops")} of={`${line.wax}, smooth tops`} />
                    </td>
                    <td className="py-2 pr-3">
                      <Figure shown={shownShare(units, line.noWetSpots)} href={href("wet")} of={`${line.wax}, no wet spots`} />
                    </td>
                    <td className="min-w-[112px] py-2 pr-3">
                      <Throws line={line} of="cold" hrefOf={href} />
                    </td>
                    <td className="min-w-[112px] py-2 pr-3">
                      <Throws line={line} of="hot" hrefOf={href} />
                    </td>
                    <td className="py-2 pr-3 text-[15px]">
                      {line.passedWicks.length > 0 ? (
                        <Link href={`/burn/wicks?${new URLSearchParams({ state: "passed", q: line.wax.slice(0, 100) })}`} className="underline">
                          {line.passedWicks
                            .slice(0, SHOWN_WICKS)
                            .map((item) => item.wick)
                            .join(", ")}
                          {line.passedWicks.length > SHOWN_WICKS ? ` and ${line.passedWicks.length - SHOWN_WICKS} more` : ""}
                        </Link>
                      ) : (
                        <span className="text-soft">–</span>
                      )}
                    </td>
                    <td className="py-2 whitespace-nowrap">
                      {line.costPerKg === null ? (
                        <span className="text-soft">–</span>
                      ) : (
                        <>
                          <span className="figure text-[19px]">{units.costPerBulk(line.costPerKg)}</span>
                          {line.costOf.map(({ id, name }) => (
                            <Link key={id} href={`/shelf/wax/${id}`} className="block max-w-[150px] text-[13px] leading-tight whitespace-normal underline">
                              lots of {name}
                            </Link>
                          ))}
                        </>
                      )}
                    </td>
                  </tr>
                );
              })}
            </WideTable>
          </div>
        </>
      )}
      {opened ? (
        <div className="unprinted">
          <Opened
            opened={opened}
            closeHref={periodAddress(PATH, { a: compared?.a ?? null, b: compared?.b ?? null }, choice)}
            allHref={periodAddress(PATH, { wax: opened.wax, figure: opened.figure, show: String(opened.total) }, choice)}
          />
        </div>
      ) : null}
    </PageLayout>
  );
}
