"use client";

import { keyOf, parseCount } from "@hearth/core";
import { useMemo } from "react";
import { Field, useFields } from "@/forms/fields";
import { countRule } from "@/forms/rules";
import type { Compared } from "@/server/findings/compare-batches";
import type { ComparedGroups, GroupedFlaw } from "@/server/findings/compare-groups";
import type { PeriodChoice } from "@/server/http/period";
import { Link, useRouter } from "@/ui/address";
import { describeLogged, formatPercentShare, formatShareRange } from "@/ui/logged";
import { Aside, PageLayout, Warn } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";
import { PeriodPicker, periodAddress } from "./period";
import { levelWords } from "./shares";
import { Ways } from "./ways";

const NAMED = (item: Compared["a"]) => `${item.rehearsal ? "rehearsal" : "batch"} ${item.number}`;

/** Rates of flaws side by side, and how far they can be told apart. */
function Flaws({
  flaws,
  label,
  heads,
}: {
  flaws: readonly Pick<GroupedFlaw, "defect" | "name" | "a" | "b" | "shares">[] | Compared["flaws"];
  label: string;
  heads: readonly string[];
}) {
  const units = useUnits();
  if (flaws.length === 0) return <p className="py-2 text-soft">No flaw was seen on either.</p>;
  return (
    <WideTable label={label} heads={["Flaw", ...heads, "difference, 95 %"]} least={560}>
      {flaws.map((flaw) => {
        const told = flaw.shares.low > 0 || flaw.shares.high < 0;
        return (
          <tr key={flaw.defect} className="border-t border-line">
            <th scope="row" className="py-2 pr-4">
              {flaw.name}
            </th>
            {[flaw.a, flaw.b].map((side, index) => (
              <td key={index} className="pr-4">
                <span className="figure text-[19px]">
                  {side.k} of {side.n}
                </span>{" "}
                <span className="text-soft">{formatPercentShare(units, side.k / side.n)}</span>
              </td>
            ))}
            <td className={told ? "font-bold" : "text-soft"}>
              {formatShareRange(units, flaw.shares.low * 100, flaw.shares.high * 100)} points{told ? "" : ": can be none"}
            </td>
          </tr>
        );
      })}
    </WideTable>
  );
}

/** How strong the two smelled, at the ages at which they were smelled. */
function Scores({ compared }: { compared: Compared }) {
  const units = useUnits();
  const { a, b } = compared;
  const keys = [...new Set([...a.scores, ...b.scores].map((item) => `${item.of}|${item.level}`))];
  if (keys.length === 0) return <p className="py-2 text-soft">Neither was scored.</p>;
  const said = (of: Compared["a"], key: string) => {
    const item = of.scores.find((each) => `${each.of}|${each.level}` === key);
    return item ? `${units.n(item.mean, 1)} (${item.n === 1 ? "1 score" : `${item.n} scores`})` : "–";
  };
  return (
    <WideTable label="Throw of both" heads={["Throw", NAMED(a), NAMED(b)]} least={420}>
      {keys.map((key) => (
        <tr key={key} className="border-t border-line">
          <th scope="row" className="py-2 pr-4">
            {key.replace("|", ", ")}
          </th>
          <td className="figure pr-4 text-[18px]">{said(a, key)}</td>
          <td className="figure pr-4 text-[18px]">{said(b, key)}</td>
        </tr>
      ))}
    </WideTable>
  );
}

/** What came out of the two, flaw by flaw, with how far they can be told apart. */
function CameOut({ compared }: { compared: Compared }) {
  const { a, b, flaws } = compared;
  if (a.rehearsal || b.rehearsal) return <p className="py-2 text-soft">A practice run has no jars: only the plan and the steps can be compared.</p>;
  const open = [a, b].filter((item) => !item.lookedAt).map((item) => item.number);
  if (open.length > 0) return <p className="py-2 text-soft">Batch {open.join(" and ")} was not inspected yet.</p>;
  return <Flaws flaws={flaws} label="Flaws of both" heads={[NAMED(a), NAMED(b)]} />;
}

/** Two groups of batches: those at one level of what is chosen, and those at another. */
function Groups({ groups, factors, choice }: { groups: ComparedGroups; factors: { name: string; words: string }[]; choice: PeriodChoice }) {
  const units = useUnits();
  const router = useRouter();
  const go = (next: { by?: string; x?: string; y?: string }) => {
    const all = { by: groups.factor, x: groups.a, y: groups.b, ...next };
    router.push(periodAddress("/findings/compare", next.by ? { by: next.by } : all, choice));
  };
  const side = (label: string, value: string | null, key: "x" | "y") => (
    <label>
      {label}{" "}
      <select className="entry !w-auto" value={value ?? ""} onChange={(event) => go({ [key]: event.target.value })}>
        {groups.levels.map((level) => (
          <option key={level.level} value={level.level}>
            {levelWords(units, level.name)} ({level.batches})
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <section aria-label="Two groups" className="mt-8">
      <h2 className="mb-2 border-b-[3px] border-ink pb-1">Two groups of batches</h2>
      <PeriodPicker path="/findings/compare" asked={{ by: groups.factor, x: groups.a, y: groups.b }} choice={choice} />
      <div className="mt-2 flex flex-wrap gap-3">
        <label>
          By{" "}
          <select className="entry !w-auto" value={groups.factor} onChange={(event) => go({ by: event.target.value })}>
            {factors.map((factor) => (
              <option key={factor.name} value={factor.name}>
                {factor.words}
              </option>
            ))}
          </select>
        </label>
        {groups.b !== null ? (
          <>
            {side("first group", groups.a, "x")}
            {side("second group", groups.b, "y")}
          </>
        ) : null}
      </div>
      {groups.b === null ? (
        <p className="py-2 text-soft">It never varied in inspected batches, so there is nothing to compare.</p>
      ) : (
        <>
          {groups.also.length > 0 ? (
            <p className="mt-3 border-l-[6px] border-hot bg-hot-fill px-3 py-2">
              ▲ The two groups differ in other things too, which can explain a difference:{" "}
              {groups.also
                .map(
                  (item) =>
                    `${item.words} (${levelWords(units, item.a.level)} in ${formatPercentShare(units, item.a.share)}; ${levelWords(units, item.b.level)} in ${formatPercentShare(units, item.b.share)})`,
                )
                .join(", ")}
              .
            </p>
          ) : null}
          <Flaws flaws={groups.flaws} label="Flaws of both groups" heads={["first group", "second group"]} />
        </>
      )}
    </section>
  );
}

interface CompareProps {
  compared: Compared | null;
  asked: { a: string; b: string };
  groups: ComparedGroups | null;
  factors: { name: string; words: string }[];
  choice: PeriodChoice;
}

/** Two batches side by side, or two groups: what was asked and done otherwise, what came out, and what can be concluded. */
export function Compare({ compared, asked, groups, factors, choice }: CompareProps) {
  const units = useUnits();
  const router = useRouter();
  const rules = useMemo(
    () => ({
      a: countRule({ least: 1, most: 999_999_999, name: "the number of a batch" }, asked.a),
      b: countRule({ least: 1, most: 999_999_999, name: "the number of a batch" }, asked.b),
    }),
    [asked.a, asked.b],
  );
  const fields = useFields(rules);
  return (
    <PageLayout
      title="Two batches side by side"
      lead="Differences and results, and whether the results can be due to them."
      side={
        <>
          <Aside title="One thing at a time">If one thing changed, a difference can be due to it. If more changed, you cannot tell which.</Aside>
          <Aside title="Two batches are two">The interval counts jars, not how much batches differ by themselves. Repeat it before you rely on it.</Aside>
        </>
      }
    >
      <Ways here="/findings/compare" />
      <form
        ref={fields.form}
        className="flex flex-wrap items-start gap-x-4"
        onSubmit={(event) => {
          event.preventDefault();
          const all = fields.check();
          if (all) router.push(`/findings/compare?a=${all.a}&b=${all.b}`);
        }}
      >
        <div className="w-[130px]">
          <Field label="Batch A" {...fields.bind("a")} inputMode="numeric" />
        </div>
        <div className="w-[130px]">
          <Field label="Batch B" {...fields.bind("b")} inputMode="numeric" />
        </div>
        <button type="submit" className="press mt-[27px]">
          Compare batches
        </button>
      </form>
      {!compared && parseCount(asked.a, { least: 1, most: 999_999_999, name: "batch" }).ok ? (
        <Warn>One of these numbers is not a batch here. Its number is in the records.</Warn>
      ) : null}
      {compared ? (
        <>
          <p className="mt-2 text-[19px]">
            <Link href={`/records/${compared.a.id}`}>
              {NAMED(compared.a)}, {compared.a.title}
            </Link>{" "}
            and{" "}
            <Link href={`/records/${compared.b.id}`}>
              {NAMED(compared.b)}, {compared.b.title}
            </Link>
          </p>
          <p className="mt-3 border-y-[3px] border-ink py-3 text-[20px] font-bold">
            {compared.says === "one thing"
              ? "One thing changed. A different result can be due to it."
              : compared.says === "nothing"
                ? "Nothing recorded changed. A different result is chance, or due to something not recorded."
                : `${compared.changed} things changed. The comparison cannot tell which of them mattered.`}
          </p>
          <section aria-label="What changed" className="mt-4">
            <h2>What changed</h2>
            <ul>
              {compared.asked.map((item) => (
                <li key={item.what} className="border-b border-line py-1">
                  <strong>asked: {item.what}</strong> {item.from} → {item.to}
                </li>
              ))}
              {compared.done.map((difference) => (
                <li key={difference.key} className="border-b border-line py-1">
                  <strong>recorded: {keyOf(difference.key).words}</strong> {difference.a === null ? "–" : describeLogged(units, difference.key, difference.a)} →{" "}
                  {difference.b === null ? "–" : describeLogged(units, difference.key, difference.b)}
                </li>
              ))}
              {compared.unknown.length > 0 ? (
                <li className="py-1 text-soft">
                  Recorded for one of them only: {compared.unknown.map((difference) => keyOf(difference.key).words).join(", ")}.
                </li>
              ) : null}
            </ul>
          </section>
          <section aria-label="Results" className="mt-4">
            <h2>Results</h2>
            <CameOut compared={compared} />
            <h3 className="mt-4">Throw</h3>
            <Scores compared={compared} />
          </section>
        </>
      ) : null}
      {groups ? <Groups groups={groups} factors={factors} choice={choice} /> : null}
    </PageLayout>
  );
}
