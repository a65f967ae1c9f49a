import { recordSchema } from "@/server/http/published-schemas";

/** The JSON Schema of a batch record. */
export function GET(): Response {
  return Response.json(recordSchema(), { headers: { "content-type": "application/schema+json" } });
}
