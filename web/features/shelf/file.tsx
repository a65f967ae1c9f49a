"use client";

import { columnOf, guessMapping, type Mapping, readSheet, SHEET_FIELDS, SHEET_KINDS, type Sheet, type SheetKind, type SheetRow } from "@hearth/core";
import { useMemo, useState } from "react";
import { callAction } from "@/forms/call-action";
import { Field } from "@/forms/fields";
import { parseFile, parseText } from "@/forms/file-parse";
import { useWorkshop } from "@/log/workshop";
import { takeSheet } from "@/server/inventory/commands";
import { Link, useRouter } from "@/ui/address";
import { Aside, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";

type Kind = SheetKind;
const PLURAL: Record<Kind, string> = {
  wax: "waxes",
  fragrance: "fragrances",
  dye: "dyes",
  additive: "additives",
  wick: "wicks",
  vessel: "vessels",
  mold: "molds",
  embed: "embeds",
  pack: "packing parts",
  instrument: "instruments",
  lot: "lots: what was received, and the stock to begin with",
  product: "products",
  wanted: "what is wanted, by when",
};
const OUTCOME_WORDS = { new: "+ new", changed: "~ changed", same: "= as it is", refused: "▲ error" } as const;

/** The field that names a row: of a lot it is what it is a lot of. */
const nameKey = (kind: Kind): string => SHEET_FIELDS[kind][0]?.key ?? "name";

const tallyOf = (rows: SheetRow[]) => {
  const tally = { new: 0, changed: 0, same: 0, refused: 0 };
  for (const row of rows) tally[row.outcome.is] += 1;
  return tally;
};

function FateRow({ row }: { row: SheetRow }) {
  const { outcome } = row;
  return (
    <tr className="border-t border-line align-baseline">
      <td className="figure py-1 pr-3 text-right text-[18px]">{row.line}</td>
      <td className="pr-3 font-semibold">{outcome.name || <span className="text-soft">no name</span>}</td>
      <td className={`pr-3 whitespace-nowrap ${outcome.is === "refused" ? "font-semibold text-hot" : outcome.is === "same" ? "text-soft" : "text-inside"}`}>
        {OUTCOME_WORDS[outcome.is]}
      </td>
      <td className="text-[15px]">{outcome.is === "refused" ? outcome.why.join(" ") : outcome.is === "changed" ? outcome.what.join("; ") : ""}</td>
    </tr>
  );
}

interface FileProps {
  /** What there is of one part; another is read when it is chosen. */
  kept: { kind: Kind; rows: (Record<string, unknown> & { id: string; name: string })[] };
  context: Parameters<typeof readSheet>[4];
}

/** Returns a file of a part of the shelf as far as it was read: its columns, what becomes of each row, and taking them in. */
function useShelfFile({ kept: there, context }: FileProps) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [kind, setKind] = useState<Kind>(there.kind);
  const [sheet, setSheet] = useState<Required<Sheet> | null>(null);
  const [name, setName] = useState("");
  const [mapping, setMapping] = useState<Mapping>({});
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const [columnsOpen, setColumnsOpen] = useState(false);
  const kept = there.kind === kind ? there.rows : null;
  const rows = useMemo(() => (sheet && kept ? readSheet(kind, sheet, mapping, kept, context) : []), [sheet, kind, mapping, kept, context]);
  const tally = tallyOf(rows);
  /** Matches the columns by their heads; where one is left over, the matching lies open. */
  const show = (of: Kind, read: Sheet) => {
    const guess = guessMapping(of, read.heads);
    const used = Object.values(guess);
    setMapping(guess);
    setColumnsOpen(guess[nameKey(of)] === null || read.heads.some((head, index) => head !== "" && !used.includes(index)));
  };
  const begin = (parsed: ReturnType<typeof parseText>, of: string) => {
    if (!parsed.ok) return setMessage({ good: false, text: parsed.message });
    setName(of);
    setSheet(parsed.sheet);
    show(kind, parsed.sheet);
  };
  return {
    ...{ kind, kept, sheet, mapping, setMapping, message, busy, columnsOpen, setColumnsOpen, rows, tally },
    read: async (file: File | undefined) => {
      setMessage(null);
      setSheet(null);
      if (file) begin(parseFile(new Uint8Array(await file.arrayBuffer())), file.name);
    },
    paste: (text: string) => {
      setMessage(null);
      if (text.trim() === "") setSheet(null);
      else begin(parseText(text), "what was pasted");
    },
    choose: (next: Kind) => {
      setKind(next);
      router.replace(`/shelf/file?part=${next}`, { scroll: false });
      if (sheet) show(next, sheet);
      setMessage(null);
    },
    take: async () => {
      if (!sheet) return;
      setBusy(true);
      const { new: fresh, changed, same } = tally;
      const outcome = await callAction(takeSheet(workshop, { kind, sheet, mapping, shown: { new: fresh, changed, same } }));
      setBusy(false);
      router.refresh();
      if (!outcome.ok) return setMessage({ good: false, text: outcome.message });
      setSheet(null);
      setMessage({ good: true, text: `Imported from ${name}: ${outcome.value.new} new, ${outcome.value.changed} changed, ${outcome.value.same} unchanged.` });
    },
  };
}
type ShelfFileState = ReturnType<typeof useShelfFile>;

/** Which part of the shelf, its file to write, and a file or rows to read. */
function Choose({ kind, kept, message, choose, read, paste }: ShelfFileState) {
  const { workshopId } = useWorkshop();
  return (
    <section className="sheet">
      <div className="flex flex-wrap items-end gap-4">
        <label className="font-semibold">
          Which part of the shelf
          <select className="entry mt-1" value={kind} onChange={(event) => choose(event.target.value as Kind)}>
            {SHEET_KINDS.map((sheetKind) => (
              <option key={sheetKind} value={sheetKind}>
                {PLURAL[sheetKind]}
              </option>
            ))}
          </select>
        </label>
        <a className="press" href={`/api/workshops/${workshopId}/shelf/${kind}`} download>
          Write {kept?.length ?? "the"} {kept?.length === 1 ? kind : PLURAL[kind].replace(/:.*/, "")} to a file
        </a>
        <label className="min-w-0 font-semibold">
          Read a file
          <input
            className="entry mt-1"
            type="file"
            accept=".csv,.txt,text/csv,text/plain"
            onChange={(event) => void read(event.target.files?.[0])}
            data-next-step
          />
        </label>
      </div>
      <label className="mt-3 block font-semibold">
        Or paste rows from a spreadsheet, headings first
        <textarea className="entry mt-1 font-mono text-[14px]" rows={3} onChange={(event) => paste(event.target.value)} />
      </label>
      {message ? (
        <p role={message.good ? "status" : "alert"} className={`mt-3 font-semibold ${message.good ? "text-inside" : "text-hot"}`}>
          {message.good ? "✓" : "▲"} {message.text}
        </p>
      ) : null}
    </section>
  );
}

/** Which column of the file is what. */
function Columns({ kind, sheet, mapping, setMapping, columnsOpen, setColumnsOpen }: ShelfFileState & { sheet: Sheet }) {
  const fields = SHEET_FIELDS[kind];
  return (
    <section className="mt-6" aria-label="Columns">
      <details open={columnsOpen} onToggle={(event) => setColumnsOpen(event.currentTarget.open)}>
        <summary className="border-b-[3px] border-ink pb-1">
          <h2 className="inline">Which column is what</h2>{" "}
          <span className="text-soft">
            {Object.values(mapping).filter((at) => at !== null).length} of {fields.length} are in the file
          </span>
        </summary>
        <div className="mt-3 grid gap-x-5 gap-y-2 sm:grid-cols-2 xl:grid-cols-3">
          {fields.map((field) => (
            <Field
              key={field.key}
              label={field.label}
              name={`column:${field.key}`}
              value={String(mapping[field.key] ?? "")}
              onValue={(value) => setMapping((old) => ({ ...old, [field.key]: value === "" ? null : Number(value) }))}
              onLeave={() => undefined}
              error=""
              options={[
                { value: "", label: "not in the file" },
                ...sheet.heads.map((head, index) => ({ value: String(index), label: head || `column ${index + 1}` })),
              ]}
            />
          ))}
        </div>
      </details>
    </section>
  );
}

/** At most so many rows are shown. */
const MAX_SHOWN = 400;

/** What becomes of each row, and taking all of them in. */
function JarStatuses({ kind, kept, mapping, rows, tally, busy, take }: ShelfFileState) {
  const nameMapped = mapping[nameKey(kind)] !== null && mapping[nameKey(kind)] !== undefined;
  return (
    <section className="mt-6" aria-label="Preview">
      <div className="flex flex-wrap items-center justify-between gap-3 border-b-[3px] border-ink pb-2">
        <h2 aria-busy={!kept}>
          {kept ? "" : "Reading the shelf: "}
          {tally.new} new, {tally.changed} changed, {tally.same} unchanged
          {tally.refused > 0 ? <span className="text-hot">, {tally.refused} with errors</span> : null}
        </h2>
        <button
          type="button"
          className="action-button"
          disabled={busy || !kept || tally.refused > 0 || rows.length === 0 || tally.new + tally.changed === 0}
          onClick={() => void take()}
        >
          {busy ? "Importing" : "Import all rows"}
        </button>
      </div>
      {!nameMapped ? <p className="mt-2 font-semibold text-hot">▲ Choose the name column above.</p> : null}
      {tally.refused > 0 ? (
        <p className="mt-2 text-soft">Nothing is imported until these rows are fixed. Fix them in the file or match the columns, and read it again.</p>
      ) : null}
      {kept && rows.length === 0 ? <p className="mt-2 text-soft">The file has headings and no rows.</p> : null}
      <table className="mt-2 w-full text-left break-words">
        <thead className="text-[14px] text-soft">
          <tr>
            <th className="pr-3 text-right font-normal">row</th>
            <th className="font-normal">name</th>
            <th className="font-normal">result</th>
            <th className="font-normal">in detail</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MAX_SHOWN).map((row) => (
            <FateRow key={row.line} row={row} />
          ))}
        </tbody>
      </table>
      {rows.length > MAX_SHOWN ? <p className="mt-2 text-soft">And {rows.length - MAX_SHOWN} more rows.</p> : null}
    </section>
  );
}

/** The columns that a file of a part of the shelf has, before one is read. */
function ColumnsOfFile({ kind }: { kind: Kind }) {
  const units = useUnits();
  return (
    <section className="mt-6" aria-label="Columns of the file">
      <h2 className="border-b-[3px] border-ink pb-1">Columns of {PLURAL[kind].replace(/:.*/, "")}</h2>
      <table className="mt-2 w-full text-left max-sm:[&_th]:break-all">
        <tbody>
          {SHEET_FIELDS[kind].map((field) => (
            <tr key={field.key} className="border-t border-line align-baseline">
              <th scope="row" className="py-1 pr-4 font-mono text-[15px] font-normal">
                {columnOf(field, units)}
              </th>
              <td className="pr-4 font-semibold">{field.label.replace(/ · .*/, "")}</td>
              <td className="text-[15px] text-soft">
                {[
                  field.optional || field.first !== undefined ? "" : "required",
                  field.type.is === "choice" ? field.type.of.map((item) => item.value).join(", ") : "",
                  field.type.is === "yes" ? "yes or no" : "",
                  field.type.is === "range" ? "two temperatures, like 57–63" : "",
                  units.say(field.hint ?? ""),
                ]
                  .filter(Boolean)
                  .join("; ")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** The shelf to a CSV file and from one: columns matched, each row's outcome shown, then all of them or none. */
export function ShelfFile(props: FileProps) {
  const units = useUnits();
  const state = useShelfFile(props);
  const { sheet, kind } = state;
  return (
    <PageLayout
      title="Import and export the shelf"
      lead="CSV files, for any spreadsheet."
      actions={
        <Link className="press" href="/shelf">
          Back to the shelf
        </Link>
      }
      side={
        <>
          <Aside title="File format">
            UTF-8 or ANSI; commas, semicolons or tabs; decimal points, or decimal commas if cells are separated by semicolons. A cell may carry its own unit:{" "}
            {units.say("{85 C|185 F}, {180 g|8 oz}, {78 mm|3 in}")}.
          </Aside>
          <Aside title="Rows are matched by name">
            A row changes the item of that name; a new name is added. Columns that are not in the file change nothing.
          </Aside>
          <Aside title="Spreadsheet formulas are blocked">
            A cell that a spreadsheet would run as a formula is exported with an apostrophe, which is removed on import.
          </Aside>
        </>
      }
    >
      <Choose {...state} />
      {sheet ? (
        <>
          <Columns {...state} sheet={sheet} />
          <JarStatuses {...state} />
        </>
      ) : (
        <ColumnsOfFile kind={kind} />
      )}
    </PageLayout>
  );
}
