import { NOTE_SUBJECTS, type NoteSubject } from "@hearth/core";

const WORDS: Partial<Record<NoteSubject, string>> = { trial: "burn trial" };
/** What a note can be about, as a filter offers it. */
export const NOTE_KINDS: readonly { value: NoteSubject; label: string }[] = NOTE_SUBJECTS.map((kind) => ({ value: kind, label: WORDS[kind] ?? kind }));

/** Returns the page of what a note is about. */
export function noteAddress({ kind, ofId }: { kind: NoteSubject; ofId: string }): string {
  if (kind === "batch") return `/records/${ofId}`;
  if (kind === "formula") return `/formulas/${ofId}`;
  if (kind === "product") return `/products/${ofId}`;
  if (kind === "trial") return `/burn/${ofId}`;
  // Molds are used again: they are no stock, and have no page of their own.
  return kind === "mold" ? "/shelf" : `/shelf/${kind}/${ofId}`;
}
