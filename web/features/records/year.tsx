"use client";

import { countOf, defectOf, monthNames } from "@hearth/core";
import { useWorkshop } from "@/log/workshop";
import type { YearMonth } from "@/server/batches/year";
import { Link } from "@/ui/address";
import { Aside, PageLayout } from "@/ui/side-notes";
import { type Formats, useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";

interface Column {
  words: string;
  value: (row: YearMonth) => number;
  shown: (value: number) => string;
}

/** Returns the figures of a month, in the order of the table. */
function columnsOf(units: Formats, handsCost: number | null): Column[] {
  const plain = (value: number) => units.n(value, 0);
  return [
    { words: "batches", value: (row) => row.batches, shown: plain },
    { words: "poured", value: (row) => row.jars, shown: plain },
    { words: "packs sold", value: (row) => row.packsSold, shown: plain },
    { words: "taken", value: (row) => row.revenue, shown: (value) => units.money(value) },
    { words: "seconds", value: (row) => row.seconds, shown: plain },
    { words: "remelted", value: (row) => row.remelted, shown: plain },
    { words: "broken", value: (row) => row.broken, shown: plain },
    { words: "wax wasted", value: (row) => row.wasteMg, shown: (value) => units.bulk(value) },
    { words: "hours", value: (row) => row.laborSeconds / 3_600, shown: (value) => units.n(value, 1) },
    {
      words: handsCost === null ? "materials" : "materials and labor",
      value: (row) => row.materialCost + (handsCost === null ? 0 : (row.laborSeconds / 3_600) * handsCost),
      shown: (value) => units.money(Math.round(value)),
    },
  ];
}

const sumOf = (rows: readonly YearMonth[], of: Column["value"]) => rows.reduce((sum, row) => sum + of(row), 0);
const why = (reason: string) => defectOf(reason)?.name ?? reason;

/** A figure with what it is more or less than the month before. */
function Cell({ column, row, before }: { column: Column; row: YearMonth; before: YearMonth }) {
  const [now, then] = [column.value(row), column.value(before)];
  const change = now - then;
  if (now === 0 && then === 0) return <td className="py-2 pr-3 text-right text-soft">–</td>;
  return (
    <td className="py-2 pr-3 text-right">
      <span className="figure text-[18px]">{column.shown(now)}</span>
      {Math.abs(change) > 1e-9 ? (
        <span className="block text-[13px] text-soft">
          {change > 0 ? "+" : "−"}
          {column.shown(Math.abs(change))}
        </span>
      ) : null}
    </td>
  );
}

/** What was poured, sold and wasted in a year, month by month, each beside the one before. */
export function Year({
  year,
  months,
  before,
  handsCost,
  thisYear,
}: {
  year: number;
  months: readonly YearMonth[];
  before: YearMonth;
  handsCost: number | null;
  thisYear: number;
}) {
  const units = useUnits();
  const { workshopId } = useWorkshop();
  const columns = columnsOf(units, handsCost);
  const unpriced = sumOf(months, (row) => row.unpriced);
  const noted = sumOf(months, (row) => row.fromNotes);
  return (
    <PageLayout
      title={`The year ${year}`}
      lead="Poured, sold and wasted, each month beside the one before."
      actions={
        <>
          <Link className="press" href={`/records/year?year=${year - 1}`}>
            {year - 1}
          </Link>
          {year < thisYear ? (
            <Link className="press" href={`/records/year?year=${year + 1}`}>
              {year + 1}
            </Link>
          ) : null}
          <a className="press" href={`/api/workshops/${workshopId}/year?year=${year}`} download>
            Download CSV
          </a>
          <button type="button" className="press" onClick={() => print()}>
            Print
          </button>
        </>
      }
      side={
        <>
          <Aside title="Hours and cost">
            Hours follow from the labor that products say for each candle. Materials are what was drawn from stock, at the average cost of its lots.
            {unpriced > 0 ? ` ${countOf(unpriced, "draw has", "draws have")} no lot with a cost and ${unpriced === 1 ? "is" : "are"} not in it.` : ""}
          </Aside>
          <Aside title="Why">The flaws seen most in the month's pours stand where jars became seconds or were remelted, beside spills.</Aside>
          {noted > 0 ? <Aside title="From notes">{countOf(noted, "batch came", "batches came")} from a notebook: without stock, labor or sales.</Aside> : null}
        </>
      }
    >
      <WideTable label={`Months of ${year}`} heads={["month", ...columns.map((column) => column.words), "why"]} least={900}>
        {months.map((row, index) => (
          <tr key={row.month} className="border-t border-line align-top">
            <th scope="row" className="py-2 pr-3 text-left">
              {monthNames()[index]}
            </th>
            {columns.map((column) => (
              <Cell key={column.words} column={column} row={row} before={months[index - 1] ?? before} />
            ))}
            <td className="min-w-[140px] py-2 text-[14px]">{row.reasons.map((reason) => `${why(reason.why)} ${reason.times}`).join(", ")}</td>
          </tr>
        ))}
        <tr className="border-t-[3px] border-ink align-top">
          <th scope="row" className="py-2 pr-3 text-left">
            {year}
          </th>
          {columns.map((column) => (
            <td key={column.words} className="figure py-2 pr-3 text-right text-[18px]">
              {column.shown(sumOf(months, column.value))}
            </td>
          ))}
          <td />
        </tr>
      </WideTable>
    </PageLayout>
  );
}
