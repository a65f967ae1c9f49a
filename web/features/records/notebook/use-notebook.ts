import { type Grid, type NameChoice, type NameChoices, NOTE_FIELDS, type NoteKind, type NotesReading, type ShelfNames } from "@hearth/core";
import { useDeferredValue, useMemo, useRef, useState } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { importNotes } from "@/server/notebook/commands";
import type { NotesImported } from "@/server/notebook/import-notes";
import { useRouter } from "@/ui/address";
import { useUnits } from "@/ui/units";
import type { GridRead } from "@/workers/grid-parse";
import type { GridAsked } from "@/workers/read-grid";
import { beginReading, importOf, previewOf } from "./model";

/** A request may have a megabyte, its other parts included. */
const MAX_SENT = 950_000;

interface Opened {
  name: string;
  sheets: { name: string; grid: Grid }[];
  sheet: number;
  decimalComma: boolean;
}

/** Reads a file or pasted rows off the thread that draws the page. */
async function readGrid(asked: GridAsked): Promise<GridRead> {
  const worker = new Worker(new URL("../../../workers/read-grid.ts", import.meta.url), { type: "module" });
  const read = await new Promise<GridRead>((resolve) => {
    worker.onmessage = ({ data }: MessageEvent<GridRead>) => resolve(data);
    worker.onerror = () => resolve({ ok: false, message: "This file cannot be read here. Save it as CSV and try again." });
    worker.postMessage(asked);
  });
  worker.terminate();
  return read;
}

/** A notebook that is brought in: the file, how it is read, what its names mean, what becomes of each row, and importing it. */
export function useNotebook(shelf: ShelfNames, today: string) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const [kind, setKind] = useState<NoteKind>("batches");
  const [opened, setOpened] = useState<Opened | null>(null);
  const [reading, setReading] = useState<NotesReading | null>(null);
  const [chosen, setChosen] = useState<NameChoices>({});
  const [message, setMessage] = useState("");
  const [busy, setBusy] = useState<"reading" | "importing" | null>(null);
  const [done, setDone] = useState<(NotesImported & { kind: NoteKind }) | null>(null);
  /** One id for one press, kept where an answer was lost, so that pressing again imports once. */
  const importId = useRef(v7());
  const deferred = useDeferredValue(reading);
  const preview = useMemo(() => (deferred ? previewOf(deferred, shelf, chosen, today) : null), [deferred, shelf, chosen, today]);
  const begin = (of: NoteKind, file: Opened) => {
    const grid = file.sheets[file.sheet]?.grid ?? [];
    const dayOrder = units.manner.date.startsWith("L") ? "month" : "day";
    const read = beginReading(of, grid, { units, dayOrder, decimalComma: file.decimalComma });
    importId.current = v7();
    setOpened(file);
    setReading(read);
    setChosen({});
    setDone(null);
    setMessage(read && read.table.rows.length > 0 ? "" : "This sheet has headings and no rows.");
  };
  const open = async (asked: GridAsked, name: string) => {
    setBusy("reading");
    const read = await readGrid(asked);
    setBusy(null);
    if (!read.ok) {
      setOpened(null);
      setReading(null);
      return setMessage(read.message);
    }
    // The sheet with the most rows is the notebook; others are lists and sums.
    const sheet = read.sheets.reduce((best, item, index) => (item.grid.length > (read.sheets[best]?.grid.length ?? 0) ? index : best), 0);
    begin(kind, { name, sheets: read.sheets, sheet, decimalComma: read.decimalComma });
  };
  const change = (more: Partial<NotesReading>) => setReading((old) => (old ? { ...old, ...more } : old));
  return {
    ...{ kind, opened, reading, preview, chosen, message, busy, done },
    isStale: deferred !== reading,
    chooseKind: (next: NoteKind) => {
      setKind(next);
      if (opened) begin(next, opened);
    },
    chooseSheet: (sheet: number) => opened && begin(kind, { ...opened, sheet }),
    openFile: (file: File | undefined) => file && void open({ file }, file.name),
    paste: (text: string) => text.trim() !== "" && void open({ text }, "pasted rows"),
    change,
    setColumn: (key: string, column: number | null) => change({ columns: { ...reading?.columns, [key]: column } }),
    setUnit: (key: string, unit: string) => change({ units: { ...reading?.units, [key]: unit } }),
    setEverywhere: (key: string, text: string) => change({ everywhere: { ...reading?.everywhere, [key]: text } }),
    leaveOut: (lines: readonly number[], isOut: boolean) =>
      change({ leftOut: [...new Set([...(reading?.leftOut ?? []).filter((line) => !lines.includes(line)), ...(isOut ? lines : [])])] }),
    choose: (key: string, choice: NameChoice) => setChosen((old) => ({ ...old, [key]: choice })),
    take: async () => {
      if (!opened || !reading || !preview) return;
      const grid = opened.sheets[opened.sheet]?.grid ?? [];
      const input = importOf(importId.current, opened.name, grid, reading, preview.choices);
      if (JSON.stringify(input).length > MAX_SENT) return setMessage("These rows are too many for one import. Leave some out, or split the sheet in two.");
      setBusy("importing");
      const outcome = await callAction(importNotes(workshop, input));
      setBusy(null);
      if (!outcome.ok) return setMessage(outcome.message);
      setMessage("");
      setDone({ ...outcome.value, kind });
      setOpened(null);
      setReading(null);
      router.refresh();
    },
  };
}
export type NotebookState = ReturnType<typeof useNotebook>;

/** Returns the fields of a kind of notebook that a table has a column for. */
export const mappedFields = (reading: NotesReading): number =>
  NOTE_FIELDS[reading.kind].filter((field) => (reading.columns[field.key] ?? null) !== null).length;
