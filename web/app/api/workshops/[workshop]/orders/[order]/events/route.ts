import { takeEntry } from "@/server/entry";
import { ORDERS } from "@/server/keep-order";
import { respond } from "@/server/respond";

/** Takes one entry of an order as it is sent, and answers once it is written. */
export async function POST(request: Request, { params }: { params: Promise<{ workshop: string; order: string }> }): Promise<Response> {
  const { workshop, order: id } = await params;
  return respond(await takeEntry(ORDERS, request, { workshop, id }));
}
