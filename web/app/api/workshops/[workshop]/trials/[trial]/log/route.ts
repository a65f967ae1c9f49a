import { respondWithChanges } from "@/server/events/entry-request";
import { trialStore } from "@/server/events/trial-store";

/** What was written to a trial after `after`: its facts as they are now, and the new entries. */
export async function GET(request: Request, { params }: { params: Promise<{ workshop: string; trial: string }> }): Promise<Response> {
  const { workshop, trial: id } = await params;
  return respondWithChanges(trialStore, request, { workshop, id });
}
