import { LANGUAGES } from "@hearth/core";
import { z } from "zod";
import { atWorkshop } from "@/server/door/door";
import { buyerFile, labelFacts } from "@/server/label-of";
import { buyerPage } from "@/server/paper/buyer";
import { refuse } from "@/server/respond";

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
export const GET = atWorkshop({ area: "sell", act: "see" }, {}, "There is no such workshop.", async (request, { db, workshop }) => {
  const read = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  const facts = read.success ? await labelFacts(db, workshop, { productId: read.data.product, batchId: read.data.batch ?? null }) : null;
  if (!facts || !read.success) return refuse(404, "There is no such candle here.");
  return new Response(buyerPage(facts, read.data.lang, workshop.locale), {
    headers: {
      "content-type": "text/html; charset=utf-8",
      "content-disposition": `${read.data.save ? "attachment" : "inline"}; filename="${buyerFile(facts)}"`,
      "cache-control": "no-store",
    },
  });
});
