import type { EventOf, LogFacts, Need } from "@hearth/core";
import { z } from "zod";
import { databaseOf } from "@/data/client";
import { now } from "@/data/clock";
import { readEpoch } from "@/data/epoch";
import { appendTo } from "./append";
import { type Incoming, readBody } from "./body";
import { AREA_OF, enter, notOwn } from "./door/door";
import type { Who } from "./door/who";
import { readJson } from "./json";
import { type Keeper, readSince } from "./keeper";
import { caught, refusal, respond, type Told } from "./respond";

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
  headers: Headers,
  named: LogParams,
  answer: (at: { workshop: string; id: string; who: Who; missing: Told }) => Promise<Told>,
): Promise<Told> {
  const entering = async () => {
    const missing = refusal(404, `There is no such ${what}.`);
    const at = params.safeParse(named);
    if (!at.success) return missing;
    const entered = await enter(headers, at.data.workshop, { area: AREA_OF[what], act });
    return entered.ok ? answer({ ...at.data, who: entered.value, missing }) : refusal(entered.status, entered.message);
  };
  return caught(entering, (told) => told);
}

/** Takes one entry of a subject as it is sent, and answers once it is written. */
export function takeEntry<F extends LogFacts, C, E extends EventOf, R>(keeper: Keeper<F, C, E, R>, sent: Incoming, named: LogParams): Promise<Told> {
  return atLog(keeper.what, "change", sent.headers, named, async ({ workshop, id, who }) => {
    const text = await readBody(sent, 100_000);
    if (text === null) return refusal(413, "An entry is never this long.");
    const body = readJson(text);
    if (!body.ok) return refusal(400, body.message);
    const parsed = keeper.subject.sent.safeParse(keeper.subject.upcastSent(body.value));
    if (!parsed.success) {
      const fields: Record<string, string[]> = {};
      for (const issue of parsed.error.issues) {
        const name = String(issue.path.at(-1) ?? "kind");
        fields[name] = [...(fields[name] ?? []), issue.message];
      }
      return refusal(400, parsed.error.issues[0]?.message ?? "This entry cannot be read.", fields);
    }
    const event = parsed.data as EventOf;
    const odd = await notOwn(workshop, who, event);
    if (odd) return refusal(403, odd, { personId: [odd] });
    const db = databaseOf(workshop);
    // Before it is written: should a backup be restored in between, the device asks again whether the log has it.
    const epoch = await readEpoch(db);
    const appended = await appendTo(keeper, db, workshop, id, event, now());
    if (!appended.ok) return refusal(appended.status, appended.message, appended.fields, appended.newer ? { newer: appended.newer } : {});
    // A device takes an entry as kept where the answer names it.
    return { status: 200, body: { ok: true, id: event.id, seq: appended.seq, epoch, repeated: appended.repeated } };
  });
}

/** What was written to a subject after `after`: its facts as they are now, and the new entries. */
export function tellSince<F extends LogFacts, C, E extends EventOf, R>(keeper: Keeper<F, C, E, R>, request: Request, named: LogParams): Promise<Response> {
  const told = atLog(keeper.what, "see", request.headers, named, async ({ workshop, id, missing }) => {
    const after = z.coerce
      .number()
      .int()
      .min(0)
      .safeParse(new URL(request.url).searchParams.get("after") ?? "0");
    if (!after.success) return refusal(400, "“after” is the number of the last entry that is known.");
    const since = await readSince(keeper, databaseOf(workshop), workshop, id, after.data);
    return since ? { status: 200, body: since } : missing;
  });
  return told.then(respond);
}
