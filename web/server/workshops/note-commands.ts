"use server";

import type { Result } from "@hearth/core";
import { notes } from "@/data/tables/note";
import { setDeleted } from "./soft-delete";

/** Takes a note away, or puts it back. */
export async function takeNoteAway(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return setDeleted("records", notes, "This note is no longer in this workshop.", workshopRef, input);
}
