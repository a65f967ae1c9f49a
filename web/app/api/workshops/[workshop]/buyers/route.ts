import { LANGUAGES } from "@hearth/core";
import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { errorResponse } from "@/server/http/respond";
import { buyerPage } from "@/server/paper/buyer";
import { buyerFile, labelFacts } from "@/server/sales/label-content";

const asked = z.object({
  product: z.uuid(),
  batch: z.uuid().optional(),
  lang: z
    .string()
    .default("en")
    .transform((text) => text.split(","))
    .pipe(z.array(z.enum(LANGUAGES)).min(1).max(3)),
  save: z.literal("1").optional(),
});

/** The page for who bought a candle: one file, to be read here or saved and hosted elsewhere. */
export const GET = workshopRoute({ area: "sell", action: "see" }, {}, "There is no such workshop.", async (request, { db, workshop }) => {
  const read = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  const state = read.success ? await labelFacts(db, workshop, { productId: read.data.product, batchId: read.data.batch ?? null }) : null;
  if (!state || !read.success) return errorResponse(404, "There is no such candle here.");
  return new Response(buyerPage(state, read.data.lang, workshop.locale), {
    headers: {
      "content-type": "text/html; charset=utf-8",
      "content-disposition": `${read.data.save ? "attachment" : "inline"}; filename="${buyerFile(state)}"`,
      "cache-control": "no-store",
    },
  });
});
