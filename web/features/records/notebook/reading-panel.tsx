import { NOTE_FIELDS, NOTE_UNITS, type NoteField, type NotesReading, splitCell } from "@hearth/core";
import { useUnits } from "@/ui/units";
import { mappedFields, type NotebookState } from "./use-notebook";

const UNIT_WORDS: Readonly<Record<string, string>> = {
  F: "°F",
  C: "°C",
  "%": "% of the wax",
  share: "share (0.08 = 8 %)",
  "oz/lb": "oz to a pound",
  "g/kg": "g to a kilogram",
};

/** Returns the first cell of a column that says something, as an example. */
const exampleOf = (reading: NotesReading, column: number | null | undefined): string =>
  column === null || column === undefined ? "" : (reading.table.rows.map((row) => row.cells[column] ?? "").find((cell) => splitCell(cell).value !== "") ?? "");

function FieldRow({ item, reading, setColumn, setUnit, setEverywhere }: NotebookState & { item: NoteField; reading: NotesReading }) {
  const column = reading.columns[item.key] ?? null;
  const units = NOTE_UNITS[item.type];
  const isUsed = column !== null || (reading.everywhere[item.key] ?? "") !== "";
  return (
    <tr className="border-t border-line align-middle">
      <th scope="row" className="py-1 pr-3 text-left font-semibold">
        {item.label}
        {item.isNeeded && !isUsed ? <span className="font-normal text-hot"> needed</span> : null}
      </th>
      <td className="py-1 pr-3">
        <select
          className="entry"
          aria-label={`Column of ${item.label}`}
          value={String(column ?? "")}
          onChange={(event) => setColumn(item.key, event.target.value === "" ? null : Number(event.target.value))}
        >
          <option value="">not in the sheet</option>
          {reading.table.heads.map((head, index) => (
            <option key={index} value={index}>
              {head || `column ${index + 1}`}
            </option>
          ))}
        </select>
      </td>
      <td className="max-w-[16ch] truncate py-1 pr-3 text-soft">{exampleOf(reading, column)}</td>
      <td className="py-1 pr-3">
        {units && isUsed ? (
          <select
            className="entry"
            aria-label={`Unit of ${item.label}`}
            value={reading.units[item.key] ?? ""}
            onChange={(event) => setUnit(item.key, event.target.value)}
          >
            {units.map((unit) => (
              <option key={unit} value={unit}>
                {UNIT_WORDS[unit] ?? unit}
              </option>
            ))}
          </select>
        ) : null}
      </td>
      <td className="py-1">
        <input
          className="entry"
          aria-label={`${item.label}, where the cell is empty`}
          value={reading.everywhere[item.key] ?? ""}
          onChange={(event) => setEverywhere(item.key, event.target.value)}
        />
      </td>
    </tr>
  );
}

/** Which column is what, in which unit, what an empty cell means, and how dates and flaws are meant. */
export function ReadingPanel(state: NotebookState & { reading: NotesReading }) {
  const { reading, change, opened, chooseSheet } = state;
  const units = useUnits();
  const fields = NOTE_FIELDS[reading.kind];
  const isDated = fields.some((field) => field.type === "day");
  return (
    <section className="mt-6" aria-label="Columns">
      <details open={fields.some((field) => field.isNeeded && (reading.columns[field.key] ?? null) === null)}>
        <summary className="border-b-[3px] border-ink pb-1">
          <h2 className="inline">How the sheet is read</h2>{" "}
          <span className="text-soft">
            {mappedFields(reading)} of {fields.length} columns found; headings in row {reading.table.headingLine}
          </span>
        </summary>
        <div className="mt-3 flex flex-wrap gap-4">
          {opened && opened.sheets.length > 1 ? (
            <label className="font-semibold">
              Sheet
              <select className="entry mt-1" value={opened.sheet} onChange={(event) => chooseSheet(Number(event.target.value))}>
                {opened.sheets.map((sheet, index) => (
                  <option key={sheet.name} value={index}>
                    {sheet.name}
                  </option>
                ))}
              </select>
            </label>
          ) : null}
          {isDated ? (
            <label className="font-semibold">
              A date like 3/4/21 is
              <select className="entry mt-1" value={reading.dayOrder} onChange={(event) => change({ dayOrder: event.target.value as "day" | "month" })}>
                <option value="month">March 4</option>
                <option value="day">3 April</option>
              </select>
            </label>
          ) : null}
          {reading.kind === "batches" ? (
            <label className="font-semibold">
              A flaw without a number was on
              <select className="entry mt-1" value={reading.flawsOn} onChange={(event) => change({ flawsOn: event.target.value as NotesReading["flawsOn"] })}>
                <option value="every jar">every jar of the batch</option>
                <option value="one jar">one jar</option>
              </select>
            </label>
          ) : null}
        </div>
        <div className="mt-3 overflow-x-auto">
          <table className="w-full min-w-[640px] text-left">
            <thead className="text-[14px] text-soft">
              <tr>
                <th className="font-normal">what</th>
                <th className="font-normal">column</th>
                <th className="font-normal">first entry</th>
                <th className="font-normal">unit of bare figures</th>
                <th className="font-normal">where the cell is empty</th>
              </tr>
            </thead>
            <tbody>
              {fields.map((item) => (
                <FieldRow key={item.key} {...state} item={item} reading={reading} />
              ))}
            </tbody>
          </table>
        </div>
        <p className="mt-2 text-[15px] text-soft">
          {units.say("A cell may carry its own unit whatever its column says: {85 C|185 F}, {80 g/kg|1 oz/lb}, {180 g|8 oz}.")}
        </p>
      </details>
    </section>
  );
}
