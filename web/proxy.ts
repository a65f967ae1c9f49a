import { type NextRequest, NextResponse } from "next/server";
import { checkHostAndOrigin, contentSecurityPolicy, SECURITY_HEADERS } from "./server/auth/request-guard";
import { readBody } from "./server/http/body";
import { readJson } from "./server/http/json";

/** The largest command, in bytes: a sheet of the shelf. */
const MAX_COMMAND = 1_000_000;

const refuse = (status: 400 | 403 | 405, message: string) =>
  NextResponse.json(
    { error: { message, fields: {} } },
    { status, headers: { ...SECURITY_HEADERS, "content-security-policy": contentSecurityPolicy(crypto.randomUUID()) } },
  );

/** A place in a list: so many on, or when and which was last. */
const COUNT = /^\d{1,7}$/;
const CURSOR = /^\d{4}-\d\d-\d\dT[\d:.]{8,15}Z_[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Returns what is wrong with a query; null if nothing is. */
function faultOfQuery(query: URLSearchParams, path: string): string | null {
  const seen = new Set<string>();
  for (const [key, value] of query) {
    if (seen.has(key)) return "A part of this address is given twice. Go back, and choose again.";
    seen.add(key);
    if (value.includes("\u0000")) return "A part of this address cannot be read.";
  }
  const after = query.get("after");
  if (after !== null && !path.startsWith("/api/") && !COUNT.test(after) && !(CURSOR.test(after) && !Number.isNaN(Date.parse(after.split("_")[0] ?? ""))))
    return "This address names no place in a list. Go to the list's beginning.";
  return null;
}

/** What stands for a value that JSON has not, in a command's arguments; anything else of the kind names a part that was not sent. */
const STANDS_FOR = /^\$(\$|undefined$|NaN$|Infinity$|-Infinity$|-0$|D\d{4}-|n-?\d+$)/;

const isPlain = (value: unknown): boolean => {
  if (typeof value === "string") return !value.startsWith("$") || STANDS_FOR.test(value);
  return !value || typeof value !== "object" || Object.values(value).every(isPlain);
};

/** Returns whether a command came as the pages send it: a list of plain arguments. */
async function isCommand(request: NextRequest): Promise<boolean> {
  if (!(request.headers.get("content-type") ?? "").startsWith("text/plain")) return false;
  const text = await readBody(request.clone() as Request, MAX_COMMAND);
  const read = text === null ? null : readJson(text);
  // A text that cannot be kept is told by the command itself, at its field.
  if (!read || (!read.ok && read.why !== "odd-text")) return false;
  return Array.isArray(read.value) && isPlain(read.value);
}

/** Checks host and origin of each request, and sets the content security policy of its page. */
export async function proxy(request: NextRequest): Promise<NextResponse> {
  const stranger = checkHostAndOrigin(request.method, request.headers.get("host") ?? "", request.headers.get("origin"));
  if (stranger) return refuse(stranger.status, stranger.message);
  const query = faultOfQuery(request.nextUrl.searchParams, request.nextUrl.pathname);
  if (query) return refuse(400, query);
  // A page is read, or sends a command; nothing else is done with it.
  const isPage = !/^\/(api|_next)\//.test(request.nextUrl.pathname);
  if (isPage && !["GET", "HEAD"].includes(request.method) && !(request.method === "POST" && request.headers.has("next-action")))
    return refuse(405, "A page takes no such request.");
  if (request.method === "POST" && request.headers.has("next-action") && !(await isCommand(request)))
    return refuse(400, "This is no command of these pages. Load the page again; nothing you typed is lost.");
  const nonce = btoa(crypto.randomUUID());
  const headers = new Headers(request.headers);
  // Which page it is, and so of which workshop: a page reads it from here, and from nowhere else.
  headers.set("x-hearth-path", request.nextUrl.pathname);
  const csp = contentSecurityPolicy(nonce);
  const development = process.env.NODE_ENV !== "production";
  // The builder puts the nonce that it finds here on its own scripts. While developing it evaluates text, which is not allowed here.
  if (!development) headers.set("content-security-policy", csp);
  const response = NextResponse.next({ request: { headers } });
  if (!development) response.headers.set("content-security-policy", csp);
  for (const [name, value] of Object.entries(SECURITY_HEADERS)) response.headers.set(name, value);
  return response;
}

// The import of a whole workshop checks its own request: a body that passes through here is cut at 10 MB.
export const config = { matcher: ["/((?!api/workshops$).*)"] };
