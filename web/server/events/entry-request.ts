import type { EventOf, LogState, Need } from "@hearth/core";
import { z } from "zod";
import { tenantDatabase } from "@/data/client";
import { now } from "@/data/clock";
import { readEpoch } from "@/data/epoch";
import { AREA_OF_AGGREGATE, assertOwnPerson, authorize } from "@/server/auth/authorize";
import type { Principal } from "@/server/auth/session";
import { type Incoming, readBody } from "@/server/http/body";
import { readJson } from "@/server/http/json";
import { errorResult, type HttpResult, jsonResponse, withErrorHandling } from "@/server/http/respond";
import { type AggregateStore, readSince } from "./aggregate-store";
import { appendTo } from "./append";

export interface LogParams {
  workshop: string;
  /** Of the batch or the trial. */
  id: string;
}
const params = z.object({ workshop: z.uuid(), id: z.uuid() });

/** A route of one subject's log: who may not enter is refused before anything is read. */
function atLog(
  what: keyof typeof AREA_OF_AGGREGATE,
  action: Need["action"],
  headers: Headers,
  named: LogParams,
  answer: (at: { workshop: string; id: string; who: Principal; missing: HttpResult }) => Promise<HttpResult>,
): Promise<HttpResult> {
  const entering = async () => {
    const missing = errorResult(404, `There is no such ${what}.`);
    const at = params.safeParse(named);
    if (!at.success) return missing;
    const entered = await authorize(headers, at.data.workshop, { area: AREA_OF_AGGREGATE[what], action });
    return entered.ok ? answer({ ...at.data, who: entered.value, missing }) : errorResult(entered.status, entered.message);
  };
  return withErrorHandling(entering, (result) => result);
}

/** Parses one entry sent to an aggregate, appends it, and answers once it is written. */
export function acceptEntry<F extends LogState, C, E extends EventOf, R>(
  store: AggregateStore<F, C, E, R>,
  sent: Incoming,
  named: LogParams,
): Promise<HttpResult> {
  return atLog(store.what, "change", sent.headers, named, async ({ workshop, id, who }) => {
    const text = await readBody(sent, 100_000);
    if (text === null) return errorResult(413, "This entry is too long.");
    const body = readJson(text);
    if (!body.ok) return errorResult(400, body.message);
    const parsed = store.subject.sent.safeParse(store.subject.upcastSent(body.value));
    if (!parsed.success) {
      const fields: Record<string, string[]> = {};
      for (const issue of parsed.error.issues) {
        const name = String(issue.path.at(-1) ?? "kind");
        fields[name] = [...(fields[name] ?? []), issue.message];
      }
      return errorResult(400, parsed.error.issues[0]?.message ?? "This entry is invalid.", fields);
    }
    const event = parsed.data as EventOf;
    const odd = await assertOwnPerson(workshop, who, event);
    if (odd) return errorResult(403, odd, { personId: [odd] });
    const db = tenantDatabase(workshop);
    // Before it is written: should a backup be restored in between, the device asks again whether the log has it.
    const epoch = await readEpoch(db);
    const appended = await appendTo(store, db, workshop, id, event, now());
    if (!appended.ok) return errorResult(appended.status, appended.message, appended.fields, appended.newer ? { newer: appended.newer } : {});
    // A device takes an entry as kept where the answer names it.
    return { status: 200, body: { ok: true, id: event.id, seq: appended.value.seq, epoch, repeated: appended.value.repeated } };
  });
}

/** Returns what was written to a subject after `after`: its state as they are now, and the new entries. */
export function respondWithChanges<F extends LogState, C, E extends EventOf, R>(
  store: AggregateStore<F, C, E, R>,
  request: Request,
  named: LogParams,
): Promise<Response> {
  const result = atLog(store.what, "see", request.headers, named, async ({ workshop, id, missing }) => {
    const after = z.coerce
      .number()
      .int()
      .min(0)
      .safeParse(new URL(request.url).searchParams.get("after") ?? "0");
    if (!after.success) return errorResult(400, "“after” must be the sequence number of the last known entry.");
    const since = await readSince(store, tenantDatabase(workshop), workshop, id, after.data);
    return since ? { status: 200, body: since } : missing;
  });
  return result.then(jsonResponse);
}
