"use client";

import { FindBar, type LongListProps, NothingFound, OlderNewer } from "@/catalogue/find-bar";
import { NOTE_KINDS, noteAddress } from "@/catalogue/note-address";
import type { NoteListed } from "@/server/workshops/all-notes";
import { Link } from "@/ui/address";
import { Empty, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";

interface NotesProps extends LongListProps {
  notes: NoteListed[];
}

/** Everything that was noted of batches, formulas, products, trials and materials. */
export function Notes({ notes, older, newer, narrowed, filters }: NotesProps) {
  const units = useUnits();
  return (
    <PageLayout
      title="Notes"
      lead="All that was noted, the newest first."
      actions={
        <Link className="press" href="/records">
          Records
        </Link>
      }
    >
      {notes.length > 0 || narrowed ? (
        <FindBar
          what="the notes"
          {...filters}
          filters={[{ key: "kind", label: "About", options: [{ value: "", label: "anything" }, ...NOTE_KINDS] }]}
          found={older || newer ? undefined : notes.length}
        />
      ) : null}
      {notes.length === 0 && narrowed ? (
        <NothingFound what="note" />
      ) : notes.length === 0 ? (
        <Empty title="No notes yet">
          <p>Write a note at the bench, or below a formula, a product, a trial or a material. It is then listed here.</p>
        </Empty>
      ) : (
        <ul>
          {notes.map((note) => (
            <li key={note.id} className="grid gap-x-5 border-b border-line py-3 sm:grid-cols-[180px_minmax(0,1fr)]">
              <div className="text-[15px] text-soft">
                {units.dayClock(note.at)}
                {note.by ? <span className="block">{note.by}</span> : null}
              </div>
              <div className="min-w-0">
                <Link className="font-bold" href={noteAddress(note)}>
                  {note.of}
                </Link>
                <p className="whitespace-pre-line">{note.text}</p>
              </div>
            </li>
          ))}
        </ul>
      )}
      <OlderNewer older={older} newer={newer} what="notes" />
    </PageLayout>
  );
}
