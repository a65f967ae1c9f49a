import { tellSince } from "@/server/entry";
import { ORDERS } from "@/server/keep-order";

/** What was written to an order after `after`: its facts as they are now, and the new entries. */
export async function GET(request: Request, { params }: { params: Promise<{ workshop: string; order: string }> }): Promise<Response> {
  const { workshop, order: id } = await params;
  return tellSince(ORDERS, request, { workshop, id });
}
