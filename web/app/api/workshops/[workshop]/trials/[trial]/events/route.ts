import { acceptEntry } from "@/server/events/entry-request";
import { trialStore } from "@/server/events/trial-store";
import { jsonResponse } from "@/server/http/respond";

/** Takes one entry of a trial as it is sent, and answers once it is written. */
export async function POST(request: Request, { params }: { params: Promise<{ workshop: string; trial: string }> }): Promise<Response> {
  const { workshop, trial: id } = await params;
  return jsonResponse(await acceptEntry(trialStore, request, { workshop, id }));
}
