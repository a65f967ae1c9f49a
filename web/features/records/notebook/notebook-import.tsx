"use client";

import { countOf, NOTE_KINDS, type NoteKind, type ShelfNames } from "@hearth/core";
import { useState } from "react";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { undoNotes } from "@/server/notebook/commands";
import type { ListedImport } from "@/server/notebook/notebook";
import { Link, useRouter } from "@/ui/address";
import { Aside, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { NamesPanel } from "./names-panel";
import { PreviewPanel } from "./preview-panel";
import { ReadingPanel } from "./reading-panel";
import { type NotebookState, useNotebook } from "./use-notebook";

const KIND_WORDS: Record<NoteKind, string> = {
  batches: "Past batches, one row a batch",
  burns: "Burn notes, one row a check",
  recipes: "Recipes, one row a recipe",
};

/** Returns what an import brought in, in words. */
const broughtWords = ({ batches, trials, formulas }: Pick<ListedImport, "batches" | "trials" | "formulas">): string =>
  [
    ...(batches > 0 ? [countOf(batches, "batch", "batches")] : []),
    ...(trials > 0 ? [countOf(trials, "burn trial", "burn trials")] : []),
    ...(formulas > 0 ? [countOf(formulas, "formula", "formulas")] : []),
  ].join(", ") || "nothing new";

function Choose({ kind, chooseKind, openFile, paste, busy, message, done }: NotebookState) {
  return (
    <section className="sheet">
      <fieldset className="flex flex-wrap gap-x-6 gap-y-2">
        <legend className="mb-1 font-semibold">What the sheet holds</legend>
        {NOTE_KINDS.map((each) => (
          <label key={each} className="flex items-center gap-2">
            <input type="radio" name="note-kind" className="h-5 w-5" checked={kind === each} onChange={() => chooseKind(each)} />
            {KIND_WORDS[each]}
          </label>
        ))}
      </fieldset>
      <label className="mt-4 block font-semibold">
        A spreadsheet: XLSX or CSV
        <input
          className="entry mt-1"
          type="file"
          accept=".xlsx,.csv,.tsv,.txt,text/csv,text/plain"
          onChange={(event) => openFile(event.target.files?.[0])}
          data-next-step
        />
      </label>
      <label className="mt-3 block font-semibold">
        Or paste rows from one, headings first
        <textarea className="entry mt-1 font-mono text-[14px]" rows={3} onChange={(event) => paste(event.target.value)} />
      </label>
      {busy === "reading" ? (
        <p role="status" className="mt-3">
          Reading the sheet
        </p>
      ) : null}
      {message ? (
        <p role="alert" className="mt-3 font-semibold text-hot">
          ▲ {message}
        </p>
      ) : null}
      {done ? (
        <p role="status" className="mt-3 font-semibold text-inside">
          ✓ Imported: {broughtWords(done)}.{done.already > 0 ? ` ${countOf(done.already, "row was", "rows were")} here already.` : ""}{" "}
          <Link href={done.kind === "batches" ? "/findings/scoreboard" : done.kind === "burns" ? "/burn" : "/formulas"}>
            {done.kind === "batches" ? "Compare your waxes" : done.kind === "burns" ? "See the trials" : "See the formulas"}
          </Link>
        </p>
      ) : null}
    </section>
  );
}

function Imports({ imports }: { imports: readonly ListedImport[] }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const [message, setMessage] = useState<{ id: string; text: string; good: boolean } | null>(null);
  if (imports.length === 0) return null;
  const undo = async (id: string) => {
    const outcome = await callAction(undoNotes(workshop, { importId: id }));
    const kept = outcome.ok ? outcome.value.kept : [];
    setMessage(
      outcome.ok
        ? { id, good: true, text: `Undone.${kept.length > 0 ? ` Kept, since something else uses it: ${kept.join(", ")}.` : ""}` }
        : { id, good: false, text: outcome.message },
    );
    if (outcome.ok) router.refresh();
  };
  return (
    <section className="mt-8" aria-label="Imports">
      <h2 className="border-b-[3px] border-ink pb-1">Imported notebooks</h2>
      <ul>
        {imports.map((item) => (
          <li key={item.id} className="flex flex-wrap items-center justify-between gap-3 border-b border-line py-2">
            <span className="min-w-0 break-words">
              <span className="font-semibold">{item.file}</span>: {broughtWords(item)}, {units.onDay(item.day)}
              {item.undone ? <span className="text-soft">, undone</span> : null}
              {message?.id === item.id ? (
                <span role={message.good ? "status" : "alert"} className={`block ${message.good ? "text-inside" : "text-hot"}`}>
                  {message.text}
                </span>
              ) : null}
            </span>
            {item.undone ? null : (
              <button type="button" className="press" onClick={() => void undo(item.id)}>
                Undo import
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Brings an old notebook in: a sheet of past batches, burn notes or recipes, with a preview of each row. */
export function NotebookImport({ shelf, imports, today }: { shelf: ShelfNames; imports: readonly ListedImport[]; today: string }) {
  const state = useNotebook(shelf, today);
  const { reading, preview } = state;
  return (
    <PageLayout
      title="Import a notebook"
      lead="Past batches, burn notes and recipes, from a spreadsheet."
      actions={
        <Link className="press" href="/records">
          Back to the records
        </Link>
      }
      side={
        <>
          <Aside title="Sheets as you keep them">
            Titles above the headings, merged headings, remarks in brackets and dates in several spellings are read. A row with only a month in it is skipped. A
            blank date means the date above.
          </Aside>
          <Aside title="What becomes of it">
            Batches are closed and marked “from notes”. They draw no stock and cannot be sold. Findings count what the notes say and nothing else: a batch
            without a remark on its tops counts in no comparison of tops.
          </Aside>
          <Aside title="Throw needs an age">A throw score counts where the cure is given. Without it the score is kept as a remark.</Aside>
        </>
      }
    >
      <Choose {...state} />
      {reading && preview ? (
        <>
          <ReadingPanel {...state} reading={reading} />
          <NamesPanel preview={preview} shelf={shelf} choose={state.choose} />
          <PreviewPanel {...state} preview={preview} />
        </>
      ) : null}
      <Imports imports={imports} />
    </PageLayout>
  );
}
