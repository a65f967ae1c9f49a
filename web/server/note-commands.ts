"use server";

import { notes } from "@/data/tables/note";
import { turnGone } from "./gone";
import type { Outcome } from "./outcome";

/** Takes a note away, or puts it back. */
export async function takeNoteAway(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return turnGone("records", notes, "This note is not in this workshop any more.", place, input);
}
