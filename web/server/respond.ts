import { fieldErrors } from "@hearth/core";
import type { z } from "zod";
import { isAway } from "@/data/client";
import { awayWords } from "./away";
import { readBody } from "./body";
import { isIn } from "./door/who";
import { readJson } from "./json";
import { faultOf, logger } from "./logger";

/** An answer before it is put into a response of the web's, or written out as it is. */
export interface Told {
  status: number;
  body: unknown;
}
export const respond = ({ status, body }: Told): Response => Response.json(body, { status, headers: { "cache-control": "no-store" } });

/** The one shape of a refusal: `{"error":{"message":…,"fields":{…}}}`. `more` stands beside them. */
export const refusal = (status: number, message: string, fields: Record<string, string[]> = {}, more: Record<string, string> = {}): Told => ({
  status,
  body: { error: { message, fields, ...more } },
});
export const refuse = (...of: Parameters<typeof refusal>): Response => respond(refusal(...of));

/** There is too much to do just now; the words say when to try again. */
export class TooBusy extends Error {}

/** Runs a handler; a database that is away becomes a 503 that says so. */
export async function caught<T>(act: () => Promise<T>, failed: (told: Told) => T): Promise<T> {
  try {
    return await act();
  } catch (error) {
    if (isAway(error)) return failed(refusal(503, awayWords(error)));
    if (error instanceof TooBusy) return failed(refusal(503, error.message));
    logger().error({ fault: faultOf(error) }, "a request failed");
    return failed(refusal(500, "Something went wrong here. Nothing was written. Try again; if it stays, look at the server's output."));
  }
}
export const answering = (act: () => Promise<Response>): Promise<Response> => caught(act, respond);

/** The route of one calculation: JSON in, checked, answered; bad input is told field by field with 400. */
export const calculation =
  <S extends z.ZodType, A>(
    schema: S,
    answer: (request: z.output<S>, signal: AbortSignal) => A | Promise<A>,
    faultOf: (error: unknown) => Record<string, string[]> | null,
  ) =>
  (request: Request): Promise<Response> =>
    answering(async () => {
      if (!(await isIn(request.headers))) return refuse(401, "Sign in first.");
      const text = await readBody(request, 1_000_000);
      if (text === null) return refuse(413, "The request is larger than 1 MB.", { body: ["Larger than 1 MB."] });
      const body = readJson(text);
      if (!body.ok)
        return body.why === "not-json"
          ? refuse(400, "The body is not JSON.", { body: ["Send a JSON object."] })
          : refuse(400, body.message, { body: [body.message] });
      const parsed = schema.safeParse(body.value);
      if (!parsed.success) return refuse(400, parsed.error.issues[0]?.message ?? "The request cannot be read.", fieldErrors(parsed.error));
      try {
        return Response.json(await answer(parsed.data, request.signal));
      } catch (error) {
        const fields = faultOf(error);
        if (fields) return refuse(400, (error as Error).message, fields);
        throw error;
      }
    });
