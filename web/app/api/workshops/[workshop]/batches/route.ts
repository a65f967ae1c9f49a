import { z } from "zod";
import { database } from "@/data/client";
import { openBatches } from "@/server/batches";
import { answering, refuse } from "@/server/respond";

/** The batches that run, set or cure: an entry can be moved to one of them. */
export async function GET(_request: Request, { params }: { params: Promise<{ workshop: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid() }).safeParse(await params);
    if (!at.success) return refuse(404, "There is no such workshop.");
    const open = await openBatches(database(), at.data.workshop);
    return Response.json({ batches: open.map(({ id, number, title }) => ({ id, number, title })) });
  });
}
