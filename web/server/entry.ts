import type { EventOf, LogFacts, Need } from "@hearth/core";
import { z } from "zod";
import { databaseOf } from "@/data/client";
import { now } from "@/data/clock";
import { appendTo } from "./append";
import { readBody } from "./body";
import { AREA_OF, enter, notOwn } from "./door/door";
import type { Who } from "./door/who";
import { readJson } from "./json";
import { type Keeper, readSince } from "./keeper";
import { answering, refuse } from "./respond";

export interface LogParams {
  workshop: string;
  /** Of the batch or the trial. */
  id: string;
}
const params = z.object({ workshop: z.uuid(), id: z.uuid() });

/** A route of one subject's log: who may not enter is refused before anything is read. */
function atLog(
  what: keyof typeof AREA_OF,
  act: Need["act"],
  request: Request,
  named: LogParams,
  answer: (at: { workshop: string; id: string; who: Who; missing: Response }) => Promise<Response>,
): Promise<Response> {
  return answering(async () => {
    const missing = refuse(404, `There is no such ${what}.`);
    const at = params.safeParse(named);
    if (!at.success) return missing;
    const entered = await enter(request.headers, at.data.workshop, { area: AREA_OF[what], act });
    return entered.ok ? answer({ ...at.data, who: entered.value, missing }) : refuse(entered.status, entered.message);
  });
}

/** Takes one entry of a subject as it is sent, and answers once it is written. */
export function takeEntry<F extends LogFacts, C, E extends EventOf, R>(keeper: Keeper<F, C, E, R>, request: Request, named: LogParams): Promise<Response> {
  return atLog(keeper.what, "change", request, named, async ({ workshop, id, who }) => {
    const text = await readBody(request, 100_000);
    if (text === null) return refuse(413, "An entry is never this long.");
    const body = readJson(text);
    if (!body.ok) return refuse(400, body.message);
    const parsed = keeper.subject.sent.safeParse(keeper.subject.upcastSent(body.value));
    if (!parsed.success) {
      const fields: Record<string, string[]> = {};
      for (const issue of parsed.error.issues) {
        const name = String(issue.path.at(-1) ?? "kind");
        fields[name] = [...(fields[name] ?? []), issue.message];
      }
      return refuse(400, parsed.error.issues[0]?.message ?? "This entry cannot be read.", fields);
    }
    const event = parsed.data as EventOf;
    const odd = await notOwn(workshop, who, event.personId);
    if (odd) return refuse(403, odd, { personId: [odd] });
    const appended = await appendTo(keeper, databaseOf(workshop), workshop, id, event, now());
    if (!appended.ok) return refuse(appended.status, appended.message, appended.fields);
    return Response.json({ ok: true, repeated: appended.repeated });
  });
}

/** What was written to a subject after `after`: its facts as they are now, and the new entries. */
export function tellSince<F extends LogFacts, C, E extends EventOf, R>(keeper: Keeper<F, C, E, R>, request: Request, named: LogParams): Promise<Response> {
  return atLog(keeper.what, "see", request, named, async ({ workshop, id, missing }) => {
    const after = z.coerce
      .number()
      .int()
      .min(0)
      .safeParse(new URL(request.url).searchParams.get("after") ?? "0");
    if (!after.success) return refuse(400, "“after” is the number of the last entry that is known.");
    const told = await readSince(keeper, databaseOf(workshop), workshop, id, after.data);
    return told ? Response.json(told, { headers: { "cache-control": "no-store" } }) : missing;
  });
}
