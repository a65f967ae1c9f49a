import { type Area, type NoteSubject, noteSent, readJpeg } from "@hearth/core";
import { and, asc, desc, eq, inArray } from "drizzle-orm";
import type { z } from "zod";
import type { Database, Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulas } from "@/data/tables/formula";
import { notes, pictures } from "@/data/tables/note";
import { products } from "@/data/tables/product";
import { trials } from "@/data/tables/trial";
import { people } from "@/data/tables/workshop";
import { notifyPages } from "@/server/http/change-stream";
import { type OwnedTable, tableOf } from "@/server/inventory/tables";

export { noteSent };

export interface NoteShown {
  id: string;
  text: string;
  at: string;
  by: string | null;
  pictures: { id: string; width: number; height: number }[];
}

/** The part of the program that what was noted belongs to. */
export const areaOfNoted = (kind: NoteSubject): Area =>
  (({ formula: "formulas", batch: "bench", trial: "burn", product: "products" }) as Partial<Record<NoteSubject, Area>>)[kind] ?? "shelf";

/** Returns what was noted of one thing, newest first. */
export async function notesOf(db: Database, workshopId: string, kind: NoteSubject, ofId: string): Promise<NoteShown[]> {
  const rows = await db
    .select({ id: notes.id, text: notes.text, at: notes.at, by: people.name })
    .from(notes)
    .leftJoin(people, and(eq(people.workshopId, notes.workshopId), eq(people.id, notes.personId)))
    .where(and(eq(notes.workshopId, workshopId), eq(notes.kind, kind), eq(notes.ofId, ofId), eq(notes.deleted, false)))
    .orderBy(desc(notes.at), desc(notes.id));
  if (rows.length === 0) return [];
  const shown = await db
    .select({ id: pictures.id, noteId: pictures.noteId, width: pictures.width, height: pictures.height })
    .from(pictures)
    .where(
      and(
        eq(pictures.workshopId, workshopId),
        inArray(
          pictures.noteId,
          rows.map((row) => row.id),
        ),
      ),
    )
    .orderBy(asc(pictures.place));
  return rows.map((row) => ({
    ...row,
    at: new Date(row.at).toISOString(),
    pictures: shown.filter((item) => item.noteId === row.id).map(({ noteId: _, ...rest }) => rest),
  }));
}

async function isThere(tx: Transaction, workshopId: string, kind: NoteSubject, id: string): Promise<boolean> {
  const own = { formula: formulas, batch: batches, trial: trials, product: products } as const;
  const table: OwnedTable = kind in own ? own[kind as keyof typeof own] : tableOf(kind as Exclude<NoteSubject, keyof typeof own>);
  const rows = await tx
    .select({ id: table.id })
    .from(table)
    .where(and(eq(table.workshopId, workshopId), eq(table.id, id)));
  return rows.length > 0;
}

export type Noting = { ok: true } | { ok: false; status: 400 | 404; message: string; field: string };

/** Keeps a note. The same again changes nothing. A picture that carries more than itself, like where it was taken, is refused. */
export async function addNote(db: Database, workshopId: string, sent: z.output<typeof noteSent>, now: string): Promise<Noting> {
  const read = sent.pictures.map((picture) => {
    const jpeg = Buffer.from(picture.jpeg, "base64");
    return { id: picture.id, jpeg, is: readJpeg(jpeg) };
  });
  for (const { is } of read) {
    if (!is) return { ok: false, status: 400, message: "A picture could not be read. Choose it again.", field: "pictures" };
    if (is.carriesMore)
      return {
        ok: false,
        status: 400,
        message: "A picture still carries more than itself, like where it was taken. Choose it again from this page.",
        field: "pictures",
      };
  }
  return db.transaction(async (tx): Promise<Noting> => {
    if (!(await isThere(tx, workshopId, sent.kind, sent.of)))
      return { ok: false, status: 404, message: "What this note belongs to is not in this workshop.", field: "of" };
    const staff = sent.personId
      ? await tx
          .select({ id: people.id })
          .from(people)
          .where(and(eq(people.workshopId, workshopId), eq(people.id, sent.personId)))
      : [];
    if (sent.personId && staff.length === 0)
      return { ok: false, status: 400, message: "That person is not of this workshop. Choose who is working.", field: "personId" };
    const made = await tx
      .insert(notes)
      .values({
        workshopId,
        id: sent.id,
        kind: sent.kind,
        ofId: sent.of,
        text: sent.text,
        at: sent.happenedAt && Date.parse(sent.happenedAt) < Date.parse(now) ? sent.happenedAt : now,
        personId: sent.personId,
      })
      .onConflictDoNothing()
      .returning({ id: notes.id });
    if (made.length === 0) return { ok: true };
    if (read.length > 0)
      await tx
        .insert(pictures)
        .values(
          read.map(({ id, jpeg, is }, index) => ({ workshopId, id, noteId: sent.id, place: index, width: is?.width ?? 1, height: is?.height ?? 1, jpeg })),
        );
    await notifyPages(tx, { workshop: workshopId });
    return { ok: true };
  });
}

/** A picture's bytes and what it was noted of; null if there is none such, or its note was taken away. */
export async function readPicture(db: Database, workshopId: string, id: string): Promise<{ jpeg: Buffer; kind: NoteSubject } | null> {
  const [row] = await db
    .select({ jpeg: pictures.jpeg, kind: notes.kind })
    .from(pictures)
    .innerJoin(notes, and(eq(notes.workshopId, pictures.workshopId), eq(notes.id, pictures.noteId)))
    .where(and(eq(pictures.workshopId, workshopId), eq(pictures.id, id), eq(notes.deleted, false)));
  return row ? { jpeg: row.jpeg, kind: row.kind as NoteSubject } : null;
}
