import { LANGUAGES } from "@hearth/core";
import { eq } from "drizzle-orm";
import { z } from "zod";
import { database } from "@/data/client";
import { workshops } from "@/data/tables/workshop";
import { buyerFile, labelFacts } from "@/server/label-of";
import { buyerPage } from "@/server/paper/buyer";
import { answering, refuse } from "@/server/respond";

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
export async function GET(request: Request, { params }: { params: Promise<{ workshop: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid() }).safeParse(await params);
    const read = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    const db = database();
    const [workshop] = at.success && read.success ? await db.select().from(workshops).where(eq(workshops.id, at.data.workshop)) : [];
    const facts = workshop && read.success ? await labelFacts(db, workshop, { productId: read.data.product, batchId: read.data.batch ?? null }) : null;
    if (!workshop || !facts || !read.success) return refuse(404, "There is no such candle here.");
    return new Response(buyerPage(facts, read.data.lang, workshop.locale), {
      headers: {
        "content-type": "text/html; charset=utf-8",
        "content-disposition": `${read.data.save ? "attachment" : "inline"}; filename="${buyerFile(facts)}"`,
        "cache-control": "no-store",
      },
    });
  });
}
