import { BATCH, sentEvent } from "@hearth/core";
import { z } from "zod";
import { database } from "@/data/client";
import { now } from "@/data/clock";
import { appendEvent } from "./append";
import { readBody } from "./body";
import { readJson } from "./json";
import { answering, refuse } from "./respond";

/** Takes one entry of a batch as it is sent, and answers once it is written. */
export function takeEntry(request: Request, params: { workshop: string; batch: string }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid(), batch: z.uuid() }).safeParse(params);
    if (!at.success) return refuse(404, "There is no such batch.");
    const text = await readBody(request, 100_000);
    if (text === null) return refuse(413, "An entry is never this long.");
    const body = readJson(text);
    if (!body.ok) return refuse(400, body.message);
    const parsed = sentEvent.safeParse(BATCH.upcastSent(body.value));
    if (!parsed.success) {
      const fields: Record<string, string[]> = {};
      for (const issue of parsed.error.issues) {
        const name = String(issue.path.at(-1) ?? "kind");
        fields[name] = [...(fields[name] ?? []), issue.message];
      }
      return refuse(400, parsed.error.issues[0]?.message ?? "This entry cannot be read.", fields);
    }
    const appended = await appendEvent(database(), at.data.workshop, at.data.batch, parsed.data, now());
    if (!appended.ok) return refuse(appended.status, appended.message, appended.fields);
    return Response.json({ ok: true, repeated: appended.repeated });
  });
}
