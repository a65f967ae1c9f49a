import { currencyDecimals, isoDay, SALES_COLUMNS } from "@hearth/core";
import Papa from "papaparse";
import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { errorResponse } from "@/server/http/respond";
import { salesRows } from "@/server/sales/sales";

const asked = z.object({ from: isoDay().optional(), to: isoDay().optional(), order: z.uuid().optional() });

/** What was sold as CSV, a row for each packing and order. */
export const GET = workshopRoute({ area: "sell", action: "see" }, {}, "There is no such workshop.", async (request, { db, workshop }) => {
  const read = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!read.success) return errorResponse(400, "Ask for days like from=2026-01-01&to=2026-12-31.");
  const rows = await salesRows(db, workshop.id, { from: read.data.from, to: read.data.to, order: read.data.order });
  const decimals = currencyDecimals(workshop.currency);
  const money = (minor: string | null) => (minor === null ? "" : (Number(minor) / 10 ** decimals).toFixed(decimals));
  const csv = Papa.unparse(
    {
      fields: [...SALES_COLUMNS],
      data: rows.map((row) => [
        row.day,
        row.number,
        row.what,
        row.order_name,
        row.name,
        row.batches,
        row.out,
        row.sold,
        row.second,
        row.given,
        row.back,
        money(row.money),
        money(row.cost),
        workshop.currency,
      ]),
    },
    // A cell that begins like a formula is no formula of ours.
    { escapeFormulae: true },
  );
  return new Response(`${csv}\r\n`, { headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": 'attachment; filename="sales.csv"' } });
});
