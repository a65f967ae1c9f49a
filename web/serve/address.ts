import type { IncomingMessage } from "node:http";

/** What a client may not say of itself: the program writes these down, or a proxy that it was told to trust. */
const OURS = ["x-hearth-address", "x-hearth-path"];
const OF_A_PROXY = ["x-forwarded-for", "x-forwarded-host", "x-forwarded-proto", "x-forwarded-port", "forwarded", "x-real-ip"];

const plain = (address: string): string => address.replace(/^::ffff:/, "");

/**
 * Writes down from where a request came. Where it came through a proxy at one of the `trusted` addresses, the last address in
 * X-Forwarded-For that is no such proxy's is taken, and X-Forwarded-Host as the host; from anybody else these headers are dropped.
 */
export function noteAddress(request: Pick<IncomingMessage, "headers" | "socket">, trusted: readonly string[]): void {
  const { headers } = request;
  const from = plain(request.socket.remoteAddress ?? "unknown");
  let address = from;
  if (trusted.includes(from)) {
    const chain = String(headers["x-forwarded-for"] ?? "")
      .split(",")
      .map((text) => plain(text.trim()))
      .filter(Boolean);
    address = chain.findLast((text) => !trusted.includes(text)) ?? from;
    const host = headers["x-forwarded-host"];
    if (typeof host === "string" && !host.includes(",")) headers.host = host.trim();
  }
  for (const name of [...OURS, ...OF_A_PROXY]) delete headers[name];
  headers["x-hearth-address"] = address;
}
