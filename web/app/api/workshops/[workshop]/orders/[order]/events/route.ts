import { acceptEntry } from "@/server/events/entry-request";
import { orderStore } from "@/server/events/order-store";
import { jsonResponse } from "@/server/http/respond";

/** Takes one entry of an order as it is sent, and answers once it is written. */
export async function POST(request: Request, { params }: { params: Promise<{ workshop: string; order: string }> }): Promise<Response> {
  const { workshop, order: id } = await params;
  return jsonResponse(await acceptEntry(orderStore, request, { workshop, id }));
}
