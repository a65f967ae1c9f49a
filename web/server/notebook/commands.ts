"use server";

import type { Result } from "@hearth/core";
import { z } from "zod";
import { command } from "@/server/http/command";
import { importNotesIn, type NotesImported } from "./import-notes";
import { notesInput } from "./schema";
import { type NotesUndone, undoNotesIn } from "./undo-notes";

/** Brings a notebook in: every row that is not left out, or none. */
export async function importNotes(workshopRef: unknown, input: unknown): Promise<Result<NotesImported>> {
  return command("records", notesInput, workshopRef, input, (value, context) => importNotesIn(context.db, context, value));
}

/** Takes away everything that came with a notebook, unless something was added to it since. */
export async function undoNotes(workshopRef: unknown, input: unknown): Promise<Result<NotesUndone>> {
  return command("records", z.object({ importId: z.uuid() }), workshopRef, input, ({ importId }, context) => undoNotesIn(context.db, context, importId));
}
