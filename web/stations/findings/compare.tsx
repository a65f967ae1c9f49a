"use client";

import { keyOf, parseCount } from "@hearth/core";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo } from "react";
import { Field, useFields } from "@/forms/fields";
import { countRule } from "@/forms/rules";
import type { Compared } from "@/server/compare";
import { Aside, Screen, Warn } from "@/ui/margin";
import { sayRecorded, sayShare } from "@/ui/recorded";
import { useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";
import { Ways } from "./ways";

const NAMED = (one: Compared["a"]) => `${one.rehearsal ? "rehearsal" : "batch"} ${one.number}`;

/** What came out of the two, flaw by flaw, with how far they can be told apart. */
function CameOut({ compared }: { compared: Compared }) {
  const units = useUnits();
  const { a, b, flaws } = compared;
  if (a.rehearsal || b.rehearsal) return <p className="py-2 text-soft">A rehearsal has no jars: only what was asked and done can be compared.</p>;
  const open = [a, b].filter((one) => !one.lookedAt).map((one) => one.number);
  if (open.length > 0) return <p className="py-2 text-soft">Batch {open.join(" and ")} was not looked over yet.</p>;
  if (flaws.length === 0) return <p className="py-2 text-soft">No flaw was seen on either.</p>;
  return (
    <WideTable label="Flaws of both" heads={["Flaw", NAMED(a), NAMED(b), "difference, 95 %"]} least={560}>
      {flaws.map((one) => {
        const told = one.shares.low > 0 || one.shares.high < 0;
        const points = (share: number) => `${share > 0 ? "+" : ""}${units.n(share * 100, 0)}`;
        return (
          <tr key={one.defect} className="border-t border-line">
            <th scope="row" className="py-2 pr-4">
              {one.name}
            </th>
            {[one.a, one.b].map((side, at) => (
              <td key={at} className="pr-4">
                <span className="figure text-[19px]">
                  {side.k} of {side.n}
                </span>{" "}
                <span className="text-soft">{sayShare(units, side.k / side.n)}</span>
              </td>
            ))}
            <td className={told ? "font-bold" : "text-soft"}>
              {points(one.shares.low)} to {points(one.shares.high)} points{told ? "" : ": can be none"}
            </td>
          </tr>
        );
      })}
    </WideTable>
  );
}

/** Two batches side by side: what was asked and done otherwise, what came out, and what can be concluded. */
export function Compare({ compared, asked }: { compared: Compared | null; asked: { a: string; b: string } }) {
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
    <Screen
      title="Two batches side by side"
      lead="What was different, what came out, and whether the one can be put down to the other."
      side={
        <>
          <Aside title="One thing at a time">If one thing changed, a difference can be due to it. If more did, nobody can tell which.</Aside>
          <Aside title="Two batches are two">
            The interval counts jars. How much batches differ by themselves is not in it: pour it once more before you rely on it.
          </Aside>
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
          <Field label="One batch" {...fields.bind("a")} inputMode="numeric" />
        </div>
        <div className="w-[130px]">
          <Field label="The other" {...fields.bind("b")} inputMode="numeric" />
        </div>
        <button type="submit" className="press mt-[27px]">
          Compare them
        </button>
      </form>
      {!compared && parseCount(asked.a, { least: 1, most: 999_999_999, name: "batch" }).ok ? (
        <Warn>One of these numbers is no batch here. Look at the records for its number.</Warn>
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
              ? "One thing changed. What came out otherwise can be due to it."
              : compared.says === "nothing"
                ? "Nothing that is known changed. What came out otherwise is chance, or something nobody recorded."
                : `${compared.changed} things changed. The comparison cannot tell which of them it was.`}
          </p>
          <section aria-label="What changed" className="mt-4">
            <h2>What changed</h2>
            <ul>
              {compared.asked.map((one) => (
                <li key={one.what} className="border-b border-line py-1">
                  <strong>asked: {one.what}</strong> {one.from} → {one.to}
                </li>
              ))}
              {compared.done.map((one) => (
                <li key={one.key} className="border-b border-line py-1">
                  <strong>recorded: {keyOf(one.key).words}</strong> {one.a === null ? "–" : sayRecorded(units, one.key, one.a)} →{" "}
                  {one.b === null ? "–" : sayRecorded(units, one.key, one.b)}
                </li>
              ))}
              {compared.unknown.length > 0 ? (
                <li className="py-1 text-soft">
                  Recorded for one of them only, so nobody knows: {compared.unknown.map((one) => keyOf(one.key).words).join(", ")}.
                </li>
              ) : null}
            </ul>
          </section>
          <section aria-label="What came out" className="mt-4">
            <h2>What came out</h2>
            <CameOut compared={compared} />
          </section>
        </>
      ) : null}
    </Screen>
  );
}
