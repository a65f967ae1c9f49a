import type { IncomingMessage, OutgoingHttpHeaders, ServerResponse } from "node:http";

type Handle = (request: IncomingMessage, response: ServerResponse) => Promise<void>;

interface Drawn {
  status: number;
  headers: OutgoingHttpHeaders;
  body: Buffer;
}
interface Waiting {
  request: IncomingMessage;
  response: ServerResponse;
}

/** Larger answers are not gathered; they go to the one who asked. */
const MOST_BYTES = 4 * 1_024 * 1_024;
/** What makes two requests for a page the same: where, who, and what kind of answer. */
const TELLING = [
  "host",
  "cookie",
  "accept",
  "accept-encoding",
  "rsc",
  "next-router-state-tree",
  "next-router-prefetch",
  "next-router-segment-prefetch",
  "next-url",
];

const isPage = ({ method, url }: IncomingMessage): boolean => method === "GET" && !/^\/(api|_next)\/|^\/worker\.js/.test(url ?? "/");
const keyOf = ({ url, headers }: IncomingMessage): string => JSON.stringify([url, ...TELLING.map((name) => headers[name] ?? null)]);

/** Answers one request and gathers what was said; null where it broke off, or was too large to be said again. */
function drawFor({ request, response }: Waiting, handle: Handle): Promise<Drawn | null> {
  return new Promise((resolve) => {
    const parts: Buffer[] = [];
    let size = 0;
    const gather = (chunk: unknown, encoding: unknown) => {
      if (typeof chunk !== "string" && !(chunk instanceof Uint8Array)) return;
      const part = typeof chunk === "string" ? Buffer.from(chunk, typeof encoding === "string" ? (encoding as BufferEncoding) : "utf8") : Buffer.from(chunk);
      size += part.byteLength;
      if (size <= MOST_BYTES) parts.push(part);
    };
    const { write, end } = response;
    response.write = ((chunk: unknown, ...rest: unknown[]) => {
      gather(chunk, rest[0]);
      return Reflect.apply(write, response, [chunk, ...rest]) as boolean;
    }) as typeof write;
    response.end = ((chunk?: unknown, ...rest: unknown[]) => {
      gather(chunk, rest[0]);
      return Reflect.apply(end, response, [chunk, ...rest]) as ServerResponse;
    }) as typeof end;
    response.once("finish", () =>
      resolve(size <= MOST_BYTES ? { status: response.statusCode, headers: response.getHeaders(), body: Buffer.concat(parts) } : null),
    );
    response.once("close", () => resolve(null));
    handle(request, response).catch(() => {
      if (!response.headersSent) response.statusCode = 500;
      if (!response.writableEnded) response.end();
      resolve(null);
    });
  });
}

function say({ response }: Waiting, { status, headers, body }: Drawn): void {
  if (response.destroyed) return;
  const { "transfer-encoding": _chunked, connection: _connection, "keep-alive": _alive, ...kept } = headers;
  response.writeHead(status, { ...kept, "content-length": body.byteLength });
  response.end(body);
}

/**
 * Draws a page once for all that ask for the same one at the same time: after an entry every page of a workshop reads its
 * list again. Who asks while it is being drawn waits for the next drawing, so that nobody is given one that was begun
 * before they asked.
 */
export function shared(handle: Handle): Handle {
  const queues = new Map<string, Waiting[]>();
  const drawAll = async (key: string): Promise<void> => {
    for (;;) {
      const waiting = (queues.get(key) ?? []).filter((one) => !one.response.destroyed);
      queues.set(key, []);
      const [first, ...others] = waiting;
      if (!first) {
        queues.delete(key);
        return;
      }
      const drawn = await drawFor(first, handle);
      // Where the first broke off, the others are drawn anew.
      if (drawn) for (const one of others) say(one, drawn);
      else queues.set(key, [...others, ...(queues.get(key) ?? [])]);
    }
  };
  return async (request, response) => {
    if (!isPage(request)) return handle(request, response);
    const key = keyOf(request);
    const queue = queues.get(key);
    if (queue) queue.push({ request, response });
    else {
      queues.set(key, [{ request, response }]);
      await drawAll(key);
    }
  };
}
