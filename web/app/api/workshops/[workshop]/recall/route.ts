import { JAR_STATUS_WORDS } from "@hearth/core";
import { group } from "d3-array";
import Papa from "papaparse";
import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { errorResponse } from "@/server/http/respond";
import { lotTrace } from "@/server/inventory/trace";
import { whereNow } from "@/server/sales/orders";

const COLUMNS = ["batch", "formula", "poured", "jars", "where", "count", "of", "order", "name", "recipient", "date"];

/** Every jar of a lot as CSV: a row for each batch and place, and one for each order or market day that has packs with jars of it. */
export const GET = workshopRoute({ area: "sell", action: "see" }, {}, "There is no such workshop.", async (request, { db, workshop }) => {
  const asked = z.object({ lot: z.uuid() }).safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!asked.success) return errorResponse(400, "Ask for a lot by its id, like lot=….");
  const traced = await lotTrace(db, workshop.id, asked.data.lot, workshop.timeZone);
  if (!traced) return errorResponse(404, "There is no such lot in this workshop.");
  const packed = group(
    await whereNow(
      db,
      workshop.id,
      traced.batches.map((batch) => batch.id),
    ),
    (row) => row.batchId,
  );
  const data = traced.batches.flatMap((batch) => {
    const head = [batch.number, batch.title, batch.pouredAt ?? "", batch.jars];
    return [
      ...(batch.jarStatuses.length === 0 ? [[...head, batch.pouredAt === null ? "not poured yet" : "none filled", 0, "jars", "", "", "", ""]] : []),
      ...batch.jarStatuses.map(({ status, jars }) => [...head, JAR_STATUS_WORDS[status], jars, "jars", "", "", batch.whom.join("; "), ""]),
      ...(packed.get(batch.id) ?? []).flatMap((row) => [
        ...(row.here > 0 ? [[...head, "packed here", row.here, row.packed, "", "", "", ""]] : []),
        ...row.out
          .filter((out) => out.out > out.back)
          .map((out) => [...head, out.what === "order" ? "shipped" : "market", out.out - out.back, row.packed, out.number, out.name, out.whom, out.on ?? ""]),
      ]),
    ];
  });
  // A cell that begins like a formula is no formula of ours.
  const csv = Papa.unparse({ fields: COLUMNS, data }, { escapeFormulae: true });
  return new Response(`${csv}\r\n`, { headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": 'attachment; filename="recall.csv"' } });
});
