import { takeEntry } from "@/server/entry";
import { BATCHES } from "@/server/keep-batch";
import { respond } from "@/server/respond";

/** Takes one entry of a batch as it is sent, and answers once it is written. */
export async function POST(request: Request, { params }: { params: Promise<{ workshop: string; batch: string }> }): Promise<Response> {
  const { workshop, batch: id } = await params;
  return respond(await takeEntry(BATCHES, request, { workshop, id }));
}
