import { sentEvent, upcastSent } from "@hearth/core";
import { z } from "zod";
import { database } from "@/data/client";
import { now } from "@/data/clock";
import { appendEvent } from "@/server/append";
import { answering, readBody, refuse } from "@/server/respond";

export async function POST(request: Request, { params }: { params: Promise<{ workshop: string; batch: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid(), batch: z.uuid() }).safeParse(await params);
    if (!at.success) return refuse(404, "There is no such batch.");
    const text = await readBody(request, 100_000);
    if (text === null) return refuse(413, "An entry is never this long.");
    let body: unknown;
    try {
      body = JSON.parse(text);
    } catch {
      return refuse(400, "This entry is not JSON.");
    }
    const parsed = sentEvent.safeParse(upcastSent(body));
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
