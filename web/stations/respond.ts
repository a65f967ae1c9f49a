import { isAway } from "@/data/client";
import { AWAY } from "./outcome";

/** The one shape of a refusal: `{"error":{"message":…,"fields":{…}}}`. */
export const refuse = (status: number, message: string, fields: Record<string, string[]> = {}): Response =>
  Response.json({ error: { message, fields } }, { status });

/** Reads a request's body up to a limit in bytes; null where it is longer. */
export async function readBody(request: Request, limit: number): Promise<string | null> {
  if (Number(request.headers.get("content-length") ?? 0) > limit) return null;
  const reader = request.body?.getReader();
  if (!reader) return "";
  const parts: Uint8Array[] = [];
  let size = 0;
  for (let chunk = await reader.read(); !chunk.done; chunk = await reader.read()) {
    size += chunk.value.byteLength;
    if (size > limit) {
      await reader.cancel();
      return null;
    }
    parts.push(chunk.value);
  }
  return Buffer.concat(parts).toString("utf8");
}

/** Runs a handler; a database that is away becomes a 503 that says so. */
export async function answering(act: () => Promise<Response>): Promise<Response> {
  try {
    return await act();
  } catch (error) {
    if (isAway(error)) return refuse(503, AWAY);
    console.error(error);
    return refuse(500, "Something went wrong here. Nothing was written. Try again; if it stays, look at the server's output.");
  }
}
