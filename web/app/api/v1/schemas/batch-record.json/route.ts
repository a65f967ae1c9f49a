import { batchRecord } from "@hearth/core";
import { z } from "zod";

/** The JSON Schema of a batch record. */
export function GET(): Response {
  return Response.json(z.toJSONSchema(batchRecord, { io: "input" }), { headers: { "content-type": "application/schema+json" } });
}
