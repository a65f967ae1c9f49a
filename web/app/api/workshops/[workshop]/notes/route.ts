import { fieldErrors } from "@hearth/core";
import { z } from "zod";
import { database } from "@/data/client";
import { now } from "@/data/clock";
import { readBody } from "@/server/body";
import { readJson } from "@/server/json";
import { addNote, noteSent } from "@/server/notes";
import { answering, refuse } from "@/server/respond";

/** The most bytes of a note with its pictures. */
const MOST = 3_600_000;

/** Keeps a note with its pictures. The same note again changes nothing. */
export async function POST(request: Request, { params }: { params: Promise<{ workshop: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid() }).safeParse(await params);
    if (!at.success) return refuse(404, "There is no such workshop.");
    const text = await readBody(request, MOST);
    if (text === null) return refuse(413, "These pictures are too large together. Send them with two notes.");
    const body = readJson(text);
    if (!body.ok) return refuse(400, body.message);
    const parsed = noteSent.safeParse(body.value);
    if (!parsed.success) return refuse(400, parsed.error.issues[0]?.message ?? "This note cannot be read.", fieldErrors(parsed.error));
    const noted = await addNote(database(), at.data.workshop, parsed.data, now());
    return noted.ok ? Response.json({ ok: true }) : refuse(noted.status, noted.message, { [noted.field]: [noted.message] });
  });
}
