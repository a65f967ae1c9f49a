import { fieldErrors, may } from "@hearth/core";
import { readEpoch } from "@/data/epoch";
import { readBody } from "@/server/body";
import { atWorkshop, NOT_YOURS, notOwn } from "@/server/door/door";
import { readJson } from "@/server/json";
import { addNote, areaOfNoted, noteSent } from "@/server/notes";
import { refuse } from "@/server/respond";

/** The most bytes of a note with its pictures. */
const MOST = 3_600_000;

/** Keeps a note with its pictures. The same note again changes nothing. */
export const POST = atWorkshop({ area: "bench", act: "see" }, {}, "There is no such workshop.", async (request, { db, workshop, now, who }) => {
  const text = await readBody(request, MOST);
  if (text === null) return refuse(413, "These pictures are too large together. Send them with two notes.");
  const body = readJson(text);
  if (!body.ok) return refuse(400, body.message);
  const parsed = noteSent.safeParse(body.value);
  if (!parsed.success) return refuse(400, parsed.error.issues[0]?.message ?? "This note cannot be read.", fieldErrors(parsed.error));
  const need = { area: areaOfNoted(parsed.data.kind), act: "change" } as const;
  if (!may(who.role, need)) return refuse(403, NOT_YOURS);
  const odd = await notOwn(workshop.id, who, { personId: parsed.data.personId, happenedAt: parsed.data.happenedAt ?? now });
  if (odd) return refuse(403, odd, { personId: [odd] });
  const noted = await addNote(db, workshop.id, parsed.data, now);
  return noted.ok
    ? Response.json({ ok: true, id: parsed.data.id, seq: 0, epoch: await readEpoch(db) })
    : refuse(noted.status, noted.message, { [noted.field]: [noted.message] });
});
