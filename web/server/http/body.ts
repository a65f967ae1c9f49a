/** What is read of a request: the web's own, or one as it comes in. */
export interface Incoming {
  headers: Headers;
  body: AsyncIterable<Uint8Array> | null;
}

/** Reads a request's body up to a limit in bytes; null if it is longer. */
export async function readBody({ headers, body }: Incoming, limit: number): Promise<string | null> {
  if (Number(headers.get("content-length") ?? 0) > limit) return null;
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of body ?? []) {
    size += chunk.byteLength;
    if (size > limit) return null;
    parts.push(chunk);
  }
  return Buffer.concat(parts).toString("utf8");
}
