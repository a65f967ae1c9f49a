import { fieldErrors, inUnits, METRIC } from "@hearth/core";
import type { z } from "zod";
import { isUnavailable } from "@/data/client";
import { isSignedIn } from "@/server/auth/session";
import { faultOf, logger } from "@/server/operation/logger";
import { readBody } from "./body";
import { unavailableMessage } from "./database-unavailable";
import { readJson } from "./json";

/** Status and body of an answer, before they become a Response. */
export interface HttpResult {
  status: number;
  body: unknown;
}
export const jsonResponse = ({ status, body }: HttpResult): Response => Response.json(body, { status, headers: { "cache-control": "no-store" } });

/** Returns the one shape of a refusal: `{"error":{"message":…,"fields":{…}}}`. `more` stands beside them. */
export const errorResult = (status: number, message: string, fields: Record<string, string[]> = {}, more: Record<string, string> = {}): HttpResult => ({
  status,
  body: { error: { message, fields, ...more } },
});
export const errorResponse = (...of: Parameters<typeof errorResult>): Response => jsonResponse(errorResult(...of));

/** There is too much to do just now; the words say when to try again. */
export class ServerBusyError extends Error {}

/** Runs a handler; where the database cannot be reached, answers 503 with a message. */
export async function withErrorHandling<T>(run: () => Promise<T>, failed: (result: HttpResult) => T): Promise<T> {
  try {
    return await run();
  } catch (error) {
    if (isUnavailable(error)) return failed(errorResult(503, unavailableMessage(error)));
    if (error instanceof ServerBusyError) return failed(errorResult(503, error.message));
    logger().error({ fault: faultOf(error) }, "a request failed");
    return failed(errorResult(500, "Something went wrong here. Nothing was written. Try again; if it stays, look at the server's output."));
  }
}
export const handleRequest = (run: () => Promise<Response>): Promise<Response> => withErrorHandling(run, jsonResponse);

/** Returns the handler of a calculation route: it parses the JSON sent, answers with the result, or with 400 and a message for each field. */
export const calculationRoute =
  <S extends z.ZodType, A>(
    schema: S,
    answer: (request: z.output<S>, signal: AbortSignal) => A | Promise<A>,
    faultOf: (error: unknown) => Record<string, string[]> | null,
  ) =>
  (request: Request): Promise<Response> =>
    handleRequest(async () => {
      if (!(await isSignedIn(request.headers))) return errorResponse(401, "Sign in first.");
      const text = await readBody(request, 1_000_000);
      if (text === null) return errorResponse(413, "The request is larger than 1 MB.", { body: ["Larger than 1 MB."] });
      const body = readJson(text);
      if (!body.ok)
        return body.why === "not-json"
          ? errorResponse(400, "The body is not JSON.", { body: ["Send a JSON object."] })
          : errorResponse(400, body.message, { body: [body.message] });
      const parsed = schema.safeParse(body.value);
      if (!parsed.success) return errorResponse(400, parsed.error.issues[0]?.message ?? "The request cannot be read.", fieldErrors(parsed.error));
      try {
        return Response.json(await answer(parsed.data, request.signal));
      } catch (error) {
        const fields = faultOf(error);
        if (fields) {
          const metric = (message: string) => inUnits(message, METRIC);
          const fieldMessages = Object.fromEntries(Object.entries(fields).map(([field, messages]) => [field, messages.map(metric)]));
          return errorResponse(400, metric((error as Error).message), fieldMessages);
        }
        throw error;
      }
    });
