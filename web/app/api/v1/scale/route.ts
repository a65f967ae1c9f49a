import { answerScale, fieldErrors, ScaleError, scaleRequest } from "@hearth/core";
import { answering, readBody, refuse } from "@/stations/respond";

export async function POST(request: Request): Promise<Response> {
  return answering(async () => {
    const text = await readBody(request, 1_000_000);
    if (text === null) return refuse(413, "The request is larger than 1 MB.", { body: ["Larger than 1 MB."] });
    let body: unknown;
    try {
      body = JSON.parse(text);
    } catch {
      return refuse(400, "The body is not JSON.", { body: ["Send a JSON object."] });
    }
    const parsed = scaleRequest.safeParse(body);
    if (!parsed.success) return refuse(400, parsed.error.issues[0]?.message ?? "The request cannot be read.", fieldErrors(parsed.error));
    try {
      return Response.json(answerScale(parsed.data));
    } catch (error) {
      if (error instanceof ScaleError) return refuse(400, error.message, fieldErrors(error));
      throw error;
    }
  });
}
