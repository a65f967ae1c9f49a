"use client";

import { MAX_PICTURES, type NoteSubject, type SentEvent } from "@hearth/core";
import { useEffect, useRef, useState } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { send, useOutbox } from "@/log/outbox";
import { useWorkshop } from "@/log/workshop";
import { takeNoteAway } from "@/server/workshops/note-commands";
import type { NoteShown } from "@/server/workshops/notes";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { toast } from "@/ui/toast";
import { useClock, useUnits } from "@/ui/units";
import { type Shrunk, shrunk } from "./shrink";

interface NotebookProps {
  kind: NoteSubject;
  of: string;
  notes: NoteShown[];
}

/** Adds a note with its pictures. Like any entry it waits on this device until the server has it; what is refused comes back with its reason. */
function NewNote({ kind, of }: Pick<NotebookProps, "kind" | "of">) {
  const { workshopId, personId } = useWorkshop();
  const router = useRouter();
  const units = useUnits();
  const clock = useClock();
  const waiting = useOutbox().waiting.filter((entry) => entry.what === "note" && entry.batchId === of);
  const [text, setText] = useState("");
  const [pictures, setPictures] = useState<(Shrunk & { id: string; name: string })[]>([]);
  const [message, setMessage] = useState("");
  const [busy, setBusy] = useState<"" | "reading">("");
  const choose = async (files: File[]) => {
    setBusy("reading");
    setMessage("");
    const room = MAX_PICTURES - pictures.length;
    const unread: string[] = [];
    for (const file of files.slice(0, room)) {
      const read = await shrunk(file).catch(() => null);
      if (read) setPictures((old) => [...old, { ...read, id: v7(), name: file.name }]);
      else unread.push(file.name);
    }
    setBusy("");
    if (unread.length > 0) setMessage(`${unread.join(", ")} is not a supported format. Choose a JPEG or PNG file.`);
    else if (files.length > room) setMessage(`At most ${MAX_PICTURES} pictures go with one note: the others were left out.`);
  };
  const add = async () => {
    if (text.trim() === "" && pictures.length === 0) return setMessage("Write something, or choose a picture.");
    const note = { id: v7(), kind, of, personId, happenedAt: clock.now(), text, pictures: pictures.map((picture) => ({ id: picture.id, jpeg: picture.jpeg })) };
    setText("");
    setPictures([]);
    setMessage("");
    const first = text.trim().split("\n")[0]?.slice(0, 60);
    const told = first ? `note: ${first}` : `note with ${pictures.length === 1 ? "a photograph" : `${pictures.length} photographs`}`;
    const refusal = await send({ workshopId, batchId: of, what: "note", of: "", told, event: note as unknown as SentEvent, v: 1 });
    if (!refusal) router.refresh();
  };
  return (
    <form
      className="unprinted"
      aria-label="New note"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <label className="block text-[15px] font-semibold">
        Write a note
        <textarea className="entry mt-1 font-normal" rows={2} maxLength={2_000} value={text} onChange={(event) => setText(event.target.value)} />
      </label>
      {pictures.length > 0 ? (
        <ul className="mt-2 flex flex-wrap gap-3">
          {pictures.map((picture) => (
            <li key={picture.id} className="relative">
              <img src={picture.shown} alt={`Chosen: ${picture.name}`} className="h-[110px] border-2 border-ink" />
              <button
                type="button"
                className="press absolute top-1 right-1 !px-2"
                aria-label={`Leave out ${picture.name}`}
                onClick={() => setPictures((old) => old.filter((other) => other.id !== picture.id))}
              >
                ✕
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <label className={`press cursor-pointer focus-within:outline-[3px] ${pictures.length >= MAX_PICTURES ? "opacity-50" : ""}`}>
          {busy === "reading" ? "Reading the picture" : "Add a photograph"}
          <input
            type="file"
            accept="image/*"
            multiple
            className="sr-only"
            disabled={busy !== "" || pictures.length >= MAX_PICTURES}
            onChange={(event) => {
              void choose([...(event.target.files ?? [])]);
              event.target.value = "";
            }}
          />
        </label>
        <button type="submit" className="press" disabled={busy !== ""}>
          Save note
        </button>
        <span className="text-[14px] text-soft">Photographs are made smaller on this device, and their location is removed.</span>
      </div>
      <FormMessage className="mt-2">{message}</FormMessage>
      {waiting.length > 0 ? (
        <ul className="mt-2" aria-label="Notes that wait on this device">
          {waiting.map((entry) => (
            <li key={entry.id} className="text-soft">
              {units.dayClock(entry.event.happenedAt)} {entry.told}: kept on this device, and sent when the workshop can be reached.
            </li>
          ))}
        </ul>
      ) : null}
    </form>
  );
}

/** The notes of one thing, each with its date, its writer and its pictures, and the form for another. */
export function Notebook({ kind, of, notes }: NotebookProps) {
  const workshop = useWorkshop();
  const router = useRouter();
  const units = useUnits();
  const [shown, setShown] = useState<string | null>(null);
  const path = (picture: string) => `/api/workshops/${workshop.workshopId}/pictures/${picture}`;
  const enlarged = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    if (shown) enlarged.current?.showModal();
  }, [shown]);
  const turn = async (id: string, isDeleted: boolean) => {
    const out = await callAction(takeNoteAway(workshop, { id, gone: isDeleted }));
    if (!out.ok) return toast(out.message);
    router.refresh();
    if (isDeleted) toast("The note is deleted.", { action: { label: "Undo", onClick: () => void turn(id, false) } });
  };
  return (
    <section className="sheet mt-6" aria-labelledby={`notes-${of}`}>
      <h2 id={`notes-${of}`} className="mb-2">
        Notebook
      </h2>
      <NewNote kind={kind} of={of} />
      {notes.length === 0 ? <p className="unprinted mt-2 text-soft">No notes yet.</p> : null}
      <ul className="mt-2">
        {notes.map((note) => (
          <li key={note.id} className="border-t border-line py-3">
            <div className="flex items-baseline justify-between gap-3">
              <span className="text-[15px] text-soft">
                {units.dayClock(note.at)}
                {note.by ? `, ${note.by}` : ""}
              </span>
              <button type="button" className="press unprinted" onClick={() => void turn(note.id, true)}>
                Delete<span className="sr-only"> the note of {units.dayClock(note.at)}</span>
              </button>
            </div>
            {note.text ? <p className="break-words whitespace-pre-line">{note.text}</p> : null}
            {note.pictures.length > 0 ? (
              <ul className="mt-2 flex flex-wrap gap-3">
                {note.pictures.map((picture, index) => (
                  <li key={picture.id}>
                    <button type="button" onClick={() => setShown(picture.id)} aria-label={`Show photograph ${index + 1} of ${units.dayClock(note.at)} large`}>
                      <img
                        src={path(picture.id)}
                        alt=""
                        loading="lazy"
                        width={picture.width}
                        height={picture.height}
                        className="h-[150px] w-auto border border-line"
                      />
                    </button>
                  </li>
                ))}
              </ul>
            ) : null}
          </li>
        ))}
      </ul>
      <dialog
        ref={enlarged}
        aria-label="Photograph"
        className="m-auto max-h-[96vh] max-w-[96vw] bg-sheet p-3 backdrop:bg-ink/70"
        onClose={() => setShown(null)}
      >
        {shown ? (
          <>
            <img src={path(shown)} alt="Kept with the note" className="max-h-[84vh] max-w-full" />
            <form method="dialog" className="mt-2">
              <button type="submit" className="press">
                Close
              </button>
            </form>
          </>
        ) : null}
      </dialog>
    </section>
  );
}
