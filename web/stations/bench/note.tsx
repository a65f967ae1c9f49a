"use client";

import { cleanText } from "@hearth/core";
import { useState } from "react";
import type { Batch } from "@/log/use-batch";

/** A note to the batch. */
export function NoteForm({ batch }: { batch: Batch }) {
  const [note, setNote] = useState("");
  return (
    <form
      className="mt-3 flex items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        const text = cleanText(note).trim();
        if (!text) return;
        setNote("");
        void batch.record({ kind: "note", payload: { text } }).then((refusal) => refusal && setNote(text));
      }}
    >
      <label className="flex-1 text-[15px] font-semibold">
        Note
        <input
          className="entry mt-1 font-normal"
          maxLength={2000}
          value={note}
          onChange={(event) => setNote(event.target.value)}
          placeholder="Anything out of the ordinary"
        />
      </label>
      <button type="submit" className="press">
        Add the note
      </button>
    </form>
  );
}
