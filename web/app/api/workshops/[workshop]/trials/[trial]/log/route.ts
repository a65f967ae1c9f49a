import { tellSince } from "@/server/entry";
import { TRIALS } from "@/server/keep-trial";

/** What was written to a trial after `after`: its facts as they are now, and the new entries. */
export async function GET(request: Request, { params }: { params: Promise<{ workshop: string; trial: string }> }): Promise<Response> {
  const { workshop, trial: id } = await params;
  return tellSince(TRIALS, request, { workshop, id });
}
