import { respondWithChanges } from "@/server/events/entry-request";
import { orderStore } from "@/server/events/order-store";

/** What was written to an order after `after`: its facts as they are now, and the new entries. */
export async function GET(request: Request, { params }: { params: Promise<{ workshop: string; order: string }> }): Promise<Response> {
  const { workshop, order: id } = await params;
  return respondWithChanges(orderStore, request, { workshop, id });
}
