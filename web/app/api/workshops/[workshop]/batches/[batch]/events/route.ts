import { batchStore } from "@/server/events/batch-store";
import { acceptEntry } from "@/server/events/entry-request";
import { jsonResponse } from "@/server/http/respond";

/** Takes one entry of a batch as it is sent, and answers once it is written. */
export async function POST(request: Request, { params }: { params: Promise<{ workshop: string; batch: string }> }): Promise<Response> {
  const { workshop, batch: id } = await params;
  return jsonResponse(await acceptEntry(batchStore, request, { workshop, id }));
}
