"use client";

import { FindBar, Pages } from "@/catalogue/find-bar";
import type { Tried } from "@/server/burn/trials";
import { Link } from "@/ui/address";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";

const stateOf = (item: Tried) =>
  item.half
    ? item.decided === "passed"
      ? "half passed: full to follow"
      : "half-filled"
    : item.decided === "passed"
      ? "✓ passed"
      : item.decided === "failed"
        ? "✕ failed"
        : item.safe === false
          ? "⚠ not safe"
          : item.sessions === 0
            ? "not burned yet"
            : "open";

/** The workshop's own table of wicks: what was tried by diameter and wax, what passed, what is still open. */
export function Wicks({ tried, count, page, pages, families }: { tried: Tried[]; count: number; page: number; pages: number; families: string[] }) {
  const units = useUnits();
  return (
    <PageLayout
      title="Proven wicks"
      lead="By diameter at the wax line and wax family, from your own burn tests. Suggestions start from them."
      actions={
        <Link className="press" href="/burn">
          All trials
        </Link>
      }
      side={
        <Aside title="How to use this">A wick passed in one wax, one scent and one load. Another scent, or more than a point of load, needs a new test.</Aside>
      }
    >
      <FindBar
        what="wicks, vessels, waxes"
        filters={[
          { key: "family", label: "Family", options: [{ value: "", label: "all" }, ...families.map((family) => ({ value: family, label: family }))] },
          {
            key: "state",
            label: "State",
            options: [
              { value: "", label: "all" },
              { value: "passed", label: "passed" },
              { value: "open", label: "still open" },
            ],
          },
        ]}
        found={count}
      />
      {tried.length === 0 ? (
        <Empty
          title="No trials yet"
          action={
            <Link className="action-button" href="/burn/new" data-next-step>
              Design a trial
            </Link>
          }
        >
          <p>Each variant of a trial is listed here with your decision.</p>
        </Empty>
      ) : (
        <WideTable label="Wicks tried" least={760} heads={["diameter", "family", "wick", "vessel", "scent, load", "an hour", "trial", "state"]}>
          {tried.map((row) => (
            <tr key={`${row.trialId}${row.variant}`} className="border-b border-line">
              <td className="figure py-2 pr-3 text-[18px]">{units.len(row.widthUm)}</td>
              <td className="pr-3">{row.family}</td>
              <th scope="row" className="pr-3 text-left">
                {row.wicks > 1 ? `${row.wicks} × ` : ""}
                {row.wickName || "no wick"}
              </th>
              <td className="pr-3">{row.vessel}</td>
              <td className="pr-3">
                {row.scent || "unscented"}, {units.percent(Math.round(row.loadPpm), 1)}
              </td>
              <td className="pr-3">{row.gramsPerHour === null ? "–" : units.about(Math.round(row.gramsPerHour * 1_000))}</td>
              <td className="pr-3">
                <Link className="underline" href={`/burn/${row.trialId}?view=verdict`}>
                  {row.trial}, {row.variant}
                </Link>
              </td>
              <td className={row.decided === "passed" && !row.half ? "font-bold text-inside" : row.safe === false ? "font-bold text-safety" : ""}>
                {stateOf(row)}
              </td>
            </tr>
          ))}
        </WideTable>
      )}
      <Pages page={page} pages={pages} />
    </PageLayout>
  );
}
