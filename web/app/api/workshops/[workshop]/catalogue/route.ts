import { eq } from "drizzle-orm";
import { z } from "zod";
import { database } from "@/data/client";
import { workshops } from "@/data/tables/workshop";
import { readCatalogue } from "@/server/catalogue";
import { answering, refuse } from "@/server/respond";

/** Everything of a workshop that can be chosen: read once when somebody begins to look. */
export async function GET(_request: Request, { params }: { params: Promise<{ workshop: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid() }).safeParse(await params);
    const [workshop] = at.success ? await database().select().from(workshops).where(eq(workshops.id, at.data.workshop)) : [];
    if (!workshop) return refuse(404, "There is no such workshop.");
    return Response.json(await readCatalogue(database(), workshop.id, workshop.timeZone));
  });
}
