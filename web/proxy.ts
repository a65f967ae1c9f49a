import { type NextRequest, NextResponse } from "next/server";

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/i;

/**
 * There are no accounts yet, so only this machine is let in: a page elsewhere must not reach the records by a name that
 * resolves to loopback, nor write to them from another origin.
 */
export function proxy(request: NextRequest): NextResponse {
  const host = request.headers.get("host") ?? "";
  const refuse = (message: string) => NextResponse.json({ error: { message, fields: {} } }, { status: 403 });
  if (!LOOPBACK.test(host)) return refuse(`Hearth Jar answers only on this machine (127.0.0.1), not as ${host}: it has no accounts yet.`);
  const origin = request.headers.get("origin");
  if (!["GET", "HEAD"].includes(request.method) && origin && origin !== "null" && new URL(origin).host !== host)
    return refuse("This was sent from another site, and is refused.");
  if (!["GET", "HEAD"].includes(request.method) && origin === "null") return refuse("This was sent from another site, and is refused.");
  return NextResponse.next();
}
