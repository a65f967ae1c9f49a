"use client";

import { type DemandLine, type DemandPlan, type DemandProduct, lostDay, type PlanningSettings, type Week, writeNumber } from "@hearth/core";
import { useMemo, useState } from "react";
import { useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";

/** Returns minutes as hours, to a tenth. */
const hours = (minutes: number): string => writeNumber(minutes / 60, 1);

/** How full something is, as a bar; over its end it is marked. */
function Load({ planned, there }: { planned: number; there: number }) {
  const share = there > 0 ? planned / there : planned > 0 ? 2 : 0;
  return (
    <span aria-hidden="true" className="block h-[12px] w-full min-w-[60px] bg-wax">
      <span className={`block h-full ${share > 1 ? "bg-hot" : "bg-ink"}`} style={{ width: `${Math.min(100, share * 100)}%` }} />
    </span>
  );
}

interface WeeksProps {
  weeks: Week[];
  lines: DemandLine[];
  products: DemandProduct[];
  settings: PlanningSettings;
  demandPlan: DemandPlan;
  at: { now: string; zone: string };
}

/** The weeks to come: how much of hands, table and rack is taken, and what slips where a day is lost. */
export function DemandWeeks({ weeks, lines, products, settings, demandPlan, at }: WeeksProps) {
  const units = useUnits();
  const [day, setDay] = useState("");
  const days = [...new Set(demandPlan.pots.flatMap((pot) => (pot.day ? [pot.day] : [])))];
  const lost = useMemo(() => (day ? lostDay(day, lines, products, settings, at, demandPlan) : null), [day, lines, products, settings, at, demandPlan]);
  return (
    <section className="mt-8" aria-label="Weeks">
      <h2 className="border-b-[3px] border-ink pb-1">By weeks</h2>
      <WideTable label="Weeks, as a table" heads={["week of", "pots", "pieces", "labor", "table, fullest day", "curing at its end"]} least={520}>
        {weeks.map((week) => (
          <tr key={week.from} className="border-t border-line align-middle">
            <th scope="row" className="py-2 pr-4 font-semibold whitespace-nowrap">
              {units.onDay(week.from)}
            </th>
            <td className="figure pr-4 text-[20px]">{week.pots}</td>
            <td className="figure pr-4 text-[20px]">{week.jars}</td>
            <td className="pr-4 text-[14px]">
              <Load {...week.hands} />
              {hours(week.hands.planned)} of {hours(week.hands.there)} h
            </td>
            <td className="pr-4 text-[14px]">
              <Load {...week.table} />
              {week.table.planned} of {week.table.there} places
            </td>
            <td className="figure text-[20px]">{week.rack}</td>
          </tr>
        ))}
      </WideTable>
      <div className="unprinted mt-3 flex flex-wrap items-center gap-3 text-[15px]">
        <label htmlFor="lost-day" className="font-semibold">
          What is late if you lose a day?
        </label>
        <select id="lost-day" className="entry !w-auto" value={day} onChange={(event) => setDay(event.target.value)}>
          <option value="">choose a day</option>
          {days.map((day) => (
            <option key={day} value={day}>
              {units.onDay(day)}
            </option>
          ))}
        </select>
        <span role="status">
          {lost === null
            ? ""
            : lost.slips.length === 0
              ? "Nothing: other days have room."
              : lost.slips.map((pot) => `${pot.formulaName}: ${pot.is === "late" ? `late by ${pot.short} days` : "minimum cure only"}`).join("; ")}
        </span>
      </div>
    </section>
  );
}
