import { timingSafeEqual } from "node:crypto";
import { hashOf } from "@/server/auth/secrets";
import { errorResponse, handleRequest } from "@/server/http/respond";
import { environmentSetting } from "@/server/operation/environment";
import { writtenMetrics } from "@/server/operation/metrics";

export const dynamic = "force-dynamic";

/** Figures of this server for monitoring: from this machine, or with the token in HEARTH_METRICS_TOKEN. No figure contains a name. */
export const GET = (request: Request): Promise<Response> =>
  handleRequest(async () => {
    const token = process.env.HEARTH_METRICS_TOKEN;
    const given = /^Bearer (.+)$/.exec(request.headers.get("authorization") ?? "")?.[1];
    const has = token && given ? timingSafeEqual(Buffer.from(hashOf(given)), Buffer.from(hashOf(token))) : false;
    const near = ["127.0.0.1", "::1"].includes(request.headers.get("x-hearth-address") ?? "") && !environmentSetting("HEARTH_TRUSTED_PROXIES");
    if (!has && !near) return errorResponse(401, "Figures are for this machine, or for who sends the token.");
    const { text, type } = await writtenMetrics();
    return new Response(text, { headers: { "content-type": type, "cache-control": "no-store" } });
  });
