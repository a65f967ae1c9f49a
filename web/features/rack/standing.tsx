"use client";

import { useMemo, useState } from "react";
import { Field, useFields } from "@/forms/fields";
import { readLoggerFile } from "@/forms/logger-file";
import { LoggerColumn, LoggerInput } from "@/forms/logger-input";
import { temperatureRule } from "@/forms/rules";
import type { Batch } from "@/log/use-batch";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";
import { roomOf } from "./model";

/** Where the jars stand, whether in sun or draft, and the room temperature there. */
export function Standing({ batch, shelves }: { batch: Batch; shelves: readonly string[] }) {
  const { state, pouredAt, now } = batch;
  const units = useUnits();
  const [shelf, setShelf] = useState(state.stands?.shelf ?? "");
  const [sun, setSun] = useState(false);
  const [draft, setDraft] = useState(false);
  const [message, setMessage] = useState("");
  const rules = useMemo(() => ({ room: temperatureRule(units) }), [units]);
  const fields = useFields(rules);
  const place = async () => setMessage((await batch.record({ kind: "located", payload: { shelf, sun, draft } }))?.message ?? "");
  const room = async () => {
    const all = fields.check();
    if (!all) return;
    const typed = fields.text("room");
    fields.reset();
    const refusal = await batch.record({ kind: "room", payload: { mean: all.room, low: all.room, high: all.room, readings: 1 } });
    setMessage(refusal?.message ?? "");
    if (refusal) fields.fill({ room: typed });
  };
  const [file, setFile] = useState<File | null>(null);
  const [columns, setColumns] = useState<{ at: number; name: string }[]>([]);
  /** Reads a logger's file; where it has several columns of temperatures the maker says which is the room's. */
  const take = async (file: File | undefined, column?: number) => {
    if (!file || !pouredAt) return;
    const read = await readLoggerFile(file, units, column);
    setFile(file);
    setColumns(read.ok ? read.columns : []);
    if (!read.ok) return setMessage(read.message);
    if (read.columns.length > 1 && column === undefined) return setMessage("Choose the column with the room temperature.");
    const found = roomOf(read.readings, pouredAt, now);
    if (!found)
      return setMessage(
        `Its readings are from ${units.full(read.readings[0]?.at ?? now)} to ${units.full(read.readings.at(-1)?.at ?? now)}, when these jars were not there.`,
      );
    setMessage((await batch.record({ kind: "room", payload: found }))?.message ?? "");
  };
  const newest = state.rooms.at(-1);
  return (
    <section className="sheet" aria-label="Storage place">
      <h2>Storage place</h2>
      <p className="mt-1">
        {state.stands?.shelf ? <strong>{state.stands.shelf}</strong> : <span className="text-soft">Not recorded yet.</span>}
        {state.stood?.sun ? <span className="text-hot"> · stood in the sun</span> : null}
        {state.stood?.draft ? " · stood in a draft" : null}
        {newest ? ` · room ${newest.readings > 1 ? `${units.t(newest.low)} to ${units.t(newest.high)}` : units.t(newest.mean)}` : null}
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <label>
          Shelf <input className="entry !w-[170px]" list="shelves" maxLength={60} value={shelf} onChange={(event) => setShelf(event.target.value)} />
        </label>
        <datalist id="shelves">
          {shelves.map((shelf) => (
            <option key={shelf} value={shelf} />
          ))}
        </datalist>
        <label className="flex min-h-[48px] items-center gap-2">
          <input type="checkbox" className="size-6" checked={sun} onChange={(event) => setSun(event.target.checked)} /> in the sun
        </label>
        <label className="flex min-h-[48px] items-center gap-2">
          <input type="checkbox" className="size-6" checked={draft} onChange={(event) => setDraft(event.target.checked)} /> in a draft
        </label>
        <button type="button" className="press !min-h-[56px]" onClick={() => void place()}>
          Save place
        </button>
      </div>
      <form
        ref={fields.form}
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void room();
        }}
      >
        <div className="w-[170px]">
          <Field label={`Room now, °${units.temperature}`} {...fields.bind("room")} inputMode="decimal" />
        </div>
        <button type="submit" className="press mb-[22px]">
          Save
        </button>
      </form>
      <LoggerInput label="Or from a logger file" onFile={(file) => void take(file)} />
      {file ? (
        <LoggerColumn
          columns={[{ at: -1, name: "choose…" }, ...columns].slice(columns.length > 1 ? 0 : 1)}
          column={-1}
          onColumn={(at) => void take(file, at)}
        />
      ) : null}
      <FormMessage>{message}</FormMessage>
    </section>
  );
}
