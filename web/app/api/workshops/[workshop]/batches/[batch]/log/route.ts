import { batchStore } from "@/server/events/batch-store";
import { respondWithChanges } from "@/server/events/entry-request";

/** What was written to a batch after `after`: its facts as they are now, and the new entries. */
export async function GET(request: Request, { params }: { params: Promise<{ workshop: string; batch: string }> }): Promise<Response> {
  const { workshop, batch: id } = await params;
  return respondWithChanges(batchStore, request, { workshop, id });
}
