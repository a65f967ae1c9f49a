import { tellSince } from "@/server/entry";
import { BATCHES } from "@/server/keep-batch";

/** What was written to a batch after `after`: its facts as they are now, and the new entries. */
export async function GET(request: Request, { params }: { params: Promise<{ workshop: string; batch: string }> }): Promise<Response> {
  const { workshop, batch: id } = await params;
  return tellSince(BATCHES, request, { workshop, id });
}
