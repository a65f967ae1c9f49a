import { type NextRequest, NextResponse } from "next/server";
import { readBody } from "./server/body";
import { readJson } from "./server/json";

/** The largest command, in bytes: a sheet of the shelf. */
const MOST_COMMAND = 1_000_000;

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d{1,5})?$/i;
const READS = ["GET", "HEAD", "OPTIONS"];

const refuse = (status: 400 | 403, message: string) => NextResponse.json({ error: { message, fields: {} } }, { status });

/** Of another site, of none that can be read, or of this one. */
function originOf(text: string, host: string): "own" | "other" | "odd" {
  if (text === "null") return "other";
  try {
    return new URL(text).host.toLowerCase() === host.toLowerCase() ? "own" : "other";
  } catch {
    return "odd";
  }
}

/** A place in a list: when and which was last. */
const CURSOR = /^\d{4}-\d\d-\d\dT[\d:.]{8,15}Z_[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** What is wrong with a query; null where nothing is. */
function faultOfQuery(query: URLSearchParams, path: string): string | null {
  const seen = new Set<string>();
  for (const [key, value] of query) {
    if (seen.has(key)) return "A part of this address is given twice. Go back, and choose again.";
    seen.add(key);
    if (value.includes("\u0000")) return "A part of this address cannot be read.";
  }
  const after = query.get("after");
  if (after !== null && !path.startsWith("/api/") && !(CURSOR.test(after) && !Number.isNaN(Date.parse(after.split("_")[0] ?? ""))))
    return "This address names no place in a list. Go to the list's beginning.";
  return null;
}

/** What stands for a value that JSON has not, in a command's arguments; anything else of the kind names a part that was not sent. */
const STANDS_FOR = /^\$(\$|undefined$|NaN$|Infinity$|-Infinity$|-0$|D\d{4}-|n-?\d+$)/;

const isPlain = (value: unknown): boolean => {
  if (typeof value === "string") return !value.startsWith("$") || STANDS_FOR.test(value);
  return !value || typeof value !== "object" || Object.values(value).every(isPlain);
};

/** Whether a command came as the pages send it: a list of plain arguments. */
async function isCommand(request: NextRequest): Promise<boolean> {
  if (!(request.headers.get("content-type") ?? "").startsWith("text/plain")) return false;
  const text = await readBody(request.clone() as Request, MOST_COMMAND);
  const read = text === null ? null : readJson(text);
  // A text that cannot be kept is told by the command itself, at its field.
  if (!read || (!read.ok && read.why !== "odd-text")) return false;
  return Array.isArray(read.value) && isPlain(read.value);
}

/** What a page may load and run: its own scripts by a nonce, nothing from elsewhere, and no frame around it. */
const policy = (nonce: string) =>
  [
    "default-src 'self'",
    // Scripts added later come from files of this server, or not at all. The solver is WebAssembly, in a worker.
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'`,
    // Styles set on elements are part of the drawings; none of them comes from what is typed.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");

const HEADERS: Record<string, string> = {
  "x-content-type-options": "nosniff",
  "x-frame-options": "DENY",
  "referrer-policy": "same-origin",
  "cross-origin-opener-policy": "same-origin",
  "cross-origin-resource-policy": "same-origin",
  "permissions-policy": "camera=(), microphone=(), geolocation=(), payment=(), usb=()",
};

/**
 * There are no accounts yet, so only this machine is let in: a page elsewhere must not reach the records by a name that
 * resolves to loopback, nor write to them from another origin.
 */
export async function proxy(request: NextRequest): Promise<NextResponse> {
  const host = request.headers.get("host") ?? "";
  if (!LOOPBACK.test(host)) return refuse(403, "Hearth Jar answers only on this machine (127.0.0.1), not by another name: it has no accounts yet.");
  const origin = request.headers.get("origin");
  if (origin !== null && !READS.includes(request.method)) {
    const from = originOf(origin, host);
    if (from === "odd") return refuse(400, "The origin of this request cannot be read.");
    if (from === "other") return refuse(403, "This was sent from another site, and is refused.");
  }
  const query = faultOfQuery(request.nextUrl.searchParams, request.nextUrl.pathname);
  if (query) return refuse(400, query);
  if (request.method === "POST" && request.headers.has("next-action") && !(await isCommand(request)))
    return refuse(400, "This is no command of these pages. Load the page again; nothing you typed is lost.");
  const nonce = btoa(crypto.randomUUID());
  const headers = new Headers(request.headers);
  const csp = policy(nonce);
  const development = process.env.NODE_ENV !== "production";
  // The builder puts the nonce that it finds here on its own scripts. While developing it evaluates text, which is not allowed here.
  if (!development) headers.set("content-security-policy", csp);
  const response = NextResponse.next({ request: { headers } });
  if (!development) response.headers.set("content-security-policy", csp);
  for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
  return response;
}
