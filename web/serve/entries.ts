import type { IncomingMessage, ServerResponse } from "node:http";
import { type LogParams, takeEntry } from "../server/entry";
import { HEADERS, policy, strangerOf } from "../server/guard";
import { BATCHES } from "../server/keep-batch";
import { ORDERS } from "../server/keep-order";
import { TRIALS } from "../server/keep-trial";
import { refusal } from "../server/respond";

const PATH = /^\/api\/workshops\/([0-9a-fA-F-]{36})\/(batches|trials|orders)\/([0-9a-fA-F-]{36})\/events$/;

/**
 * Answers an entry without the pages' framework between, which takes longer than writing it: true where it was one. The same is
 * refused and the same answered as by the route of that path.
 */
export function tookEntry(request: IncomingMessage, response: ServerResponse): boolean {
  const [, workshop, what, id] = PATH.exec(request.url ?? "") ?? [];
  if (request.method !== "POST" || !workshop || !id || request.headers["next-action"] !== undefined) return false;
  // Who goes away in the middle of it is answered nothing.
  answer(request, response, what ?? "", { workshop, id }).catch(() => response.destroy());
  return true;
}

async function answer(request: IncomingMessage, response: ServerResponse, what: string, at: LogParams): Promise<void> {
  const { host = "", origin = null } = request.headers as { host?: string; origin?: string };
  const stranger = strangerOf("POST", host, origin);
  const headers = new Headers();
  // Among them the cookies, by which it is known who puts it down.
  for (const [name, value] of Object.entries(request.headers)) if (typeof value === "string" && name !== "transfer-encoding") headers.set(name, value);
  // Where it is too long it is read no further, and answered all the same.
  const sent = { headers, body: request.iterator({ destroyOnReturn: false }) };
  const told = stranger
    ? refusal(stranger.status, stranger.message)
    : await (what === "trials" ? takeEntry(TRIALS, sent, at) : what === "orders" ? takeEntry(ORDERS, sent, at) : takeEntry(BATCHES, sent, at));
  const text = JSON.stringify(told.body);
  response.writeHead(told.status, {
    ...HEADERS,
    "content-type": "application/json",
    "content-security-policy": policy(crypto.randomUUID()),
    "content-length": Buffer.byteLength(text),
    // What was not read to its end is not read on either.
    ...(request.complete ? {} : { connection: "close" }),
  });
  response.end(text);
}
