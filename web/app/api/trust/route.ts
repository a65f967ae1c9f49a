import { readFileSync } from "node:fs";
import { errorResponse } from "@/server/http/respond";

export const dynamic = "force-dynamic";

/** The certificate that vouches for this workshop's own: no secret, and nothing else may be read here. */
export function GET(): Response {
  const file = process.env.HEARTH_TLS_AUTHORITY;
  if (!file) return errorResponse(404, "This server has no certificate of its own making.");
  return new Response(readFileSync(file), {
    headers: { "content-type": "application/x-x509-ca-cert", "content-disposition": 'attachment; filename="hearth-jar.crt"' },
  });
}
