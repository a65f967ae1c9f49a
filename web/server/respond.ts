import { fieldErrors } from "@hearth/core";
import type { z } from "zod";
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

/** The route of one calculation: JSON in, checked, answered; bad input is told field by field with 400. */
export const calculation =
  <S extends z.ZodType, A>(schema: S, answer: (request: z.output<S>) => A, faultOf: (error: unknown) => Record<string, string[]> | null) =>
  (request: Request): Promise<Response> =>
    answering(async () => {
      const text = await readBody(request, 1_000_000);
      if (text === null) return refuse(413, "The request is larger than 1 MB.", { body: ["Larger than 1 MB."] });
      let body: unknown;
      try {
        body = JSON.parse(text);
      } catch {
        return refuse(400, "The body is not JSON.", { body: ["Send a JSON object."] });
      }
      const parsed = schema.safeParse(body);
      if (!parsed.success) return refuse(400, parsed.error.issues[0]?.message ?? "The request cannot be read.", fieldErrors(parsed.error));
      try {
        return Response.json(answer(parsed.data));
      } catch (error) {
        const fields = faultOf(error);
        if (fields) return refuse(400, (error as Error).message, fields);
        throw error;
      }
    });
