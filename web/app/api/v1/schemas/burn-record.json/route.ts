import { burnSchema } from "@/server/http/published-schemas";

/** The JSON Schema of a burn record. */
export function GET(): Response {
  return Response.json(burnSchema(), { headers: { "content-type": "application/schema+json" } });
}
