import { fieldErrors, may } from "@hearth/core";
import { readEpoch } from "@/data/epoch";
import { assertOwnPerson, FORBIDDEN, workshopRoute } from "@/server/auth/authorize";
import { readBody } from "@/server/http/body";
import { readJson } from "@/server/http/json";
import { errorResponse } from "@/server/http/respond";
import { addNote, areaOfNoted, noteSent } from "@/server/workshops/notes";

/** The most bytes of a note with its pictures. */
const MAX_SHOWN = 3_600_000;

/** Keeps a note with its pictures. The same note again changes nothing. */
export const POST = workshopRoute({ area: "bench", action: "see" }, {}, "There is no such workshop.", async (request, { db, workshop, now, who }) => {
  const text = await readBody(request, MAX_SHOWN);
  if (text === null) return errorResponse(413, "These pictures are too large together. Send them with two notes.");
  const body = readJson(text);
  if (!body.ok) return errorResponse(400, body.message);
  const parsed = noteSent.safeParse(body.value);
  if (!parsed.success) return errorResponse(400, parsed.error.issues[0]?.message ?? "This note cannot be read.", fieldErrors(parsed.error));
  const need = { area: areaOfNoted(parsed.data.kind), action: "change" } as const;
  if (!may(who.role, need)) return errorResponse(403, FORBIDDEN);
  const odd = await assertOwnPerson(workshop.id, who, { personId: parsed.data.personId, happenedAt: parsed.data.happenedAt ?? now });
  if (odd) return errorResponse(403, odd, { personId: [odd] });
  const noted = await addNote(db, workshop.id, parsed.data, now);
  return noted.ok
    ? Response.json({ ok: true, id: parsed.data.id, seq: 0, epoch: await readEpoch(db) })
    : errorResponse(noted.status, noted.message, { [noted.field]: [noted.message] });
});
