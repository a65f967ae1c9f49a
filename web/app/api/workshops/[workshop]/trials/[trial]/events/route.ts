import { takeEntry } from "@/server/entry";
import { TRIALS } from "@/server/keep-trial";
import { respond } from "@/server/respond";

/** Takes one entry of a trial as it is sent, and answers once it is written. */
export async function POST(request: Request, { params }: { params: Promise<{ workshop: string; trial: string }> }): Promise<Response> {
  const { workshop, trial: id } = await params;
  return respond(await takeEntry(TRIALS, request, { workshop, id }));
}
