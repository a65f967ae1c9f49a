import { cellInUnits, columnInUnits, currencyDecimals } from "@hearth/core";
import Papa from "papaparse";
import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { yearMonths } from "@/server/batches/year";
import { errorResponse } from "@/server/http/respond";
import { unitChoiceOf } from "@/server/workshops/workshops";

const asked = z.object({ year: z.coerce.number().int().min(1970).max(2200) });

/** The months of a year as CSV, a row for each, for the books. */
export const GET = workshopRoute({ area: "records", action: "see" }, {}, "There is no such workshop.", async (request, { db, workshop }) => {
  const read = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!read.success) return errorResponse(400, "Ask for a year like year=2026.");
  const { months } = await yearMonths(db, workshop, read.data.year);
  const units = unitChoiceOf(workshop);
  const decimals = currencyDecimals(workshop.currency);
  const money = (minor: number) => (minor / 10 ** decimals).toFixed(decimals);
  const csv = Papa.unparse(
    {
      fields: [
        ...["month", "batches", "from_notes", "poured", "packs_sold", "revenue", "seconds", "remelted", "broken", columnInUnits("wax_wasted_g", units)],
        ...["labor_hours", "labor_cost", "material_cost", "draws_without_cost", "currency", "why"],
      ],
      data: months.map((row) => [
        ...[row.month, row.batches, row.fromNotes, row.jars, row.packsSold, money(row.revenue), row.seconds, row.remelted, row.broken],
        cellInUnits("wax_wasted_g", row.wasteMg / 1_000, units),
        Math.round(row.laborSeconds / 36) / 100,
        workshop.handsCost === null ? "" : money((row.laborSeconds / 3_600) * workshop.handsCost),
        ...[money(row.materialCost), row.unpriced, workshop.currency],
        row.reasons.map((reason) => `${reason.why} ${reason.times}`).join("; "),
      ]),
    },
    // A cell that begins like a formula is no formula of ours.
    { escapeFormulae: true },
  );
  return new Response(`${csv}\r\n`, {
    headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": `attachment; filename="year-${read.data.year}.csv"` },
  });
});
