import { countOf, defectOf, flawsOfRow, type NoteRow } from "@hearth/core";
import { useUnits } from "@/ui/units";
import type { RowFate } from "./model";
import type { NotebookState } from "./use-notebook";

/** At most so many rows are shown; those with errors come first. */
const MAX_SHOWN = 200;

/** Returns what was read of a row, in a few words. */
function useRowWords() {
  const units = useUnits();
  return ({ values }: NoteRow): string => {
    const { flaws, isLookedAt } = flawsOfRow(values);
    const named = (parts: typeof values.wax) => (parts ?? []).map((part) => `${part.share === null ? "" : `${part.share} `}${part.name}`).join(" + ");
    return [
      values.name ?? values.candle ?? "",
      named(values.wax),
      values.scent?.length ? `${named(values.scent)}${values.load === undefined ? "" : ` ${units.percent(values.load)}`}` : "",
      values.vessel ? `${values.count ? `${values.count} × ` : ""}${values.vessel}` : "",
      values.wick ?? "",
      values.pour === undefined ? "" : `poured at ${units.t(values.pour)}`,
      values.after === undefined ? "" : `after ${Math.round(values.after / 60)} min`,
      values.pool === undefined ? "" : `pool ${units.len(values.pool)}`,
      flaws.length > 0
        ? flaws.map((flaw) => `${defectOf(flaw.defect)?.name}${flaw.jars === null ? "" : ` ${flaw.jars}`}`).join(", ")
        : isLookedAt
          ? "no flaws"
          : "",
      values.cold === undefined ? "" : `cold throw ${values.cold}`,
      values.hot === undefined ? "" : `hot throw ${values.hot}`,
    ]
      .filter(Boolean)
      .join(" · ");
  };
}

function FateRow({ item, words, leaveOut }: { item: RowFate; words: (row: NoteRow) => string; leaveOut: NotebookState["leaveOut"] }) {
  const units = useUnits();
  const isOut = item.fate === "left out";
  return (
    <tr className="border-t border-line align-baseline">
      <td className="figure py-1 pr-3 text-right text-[18px]">{item.line}</td>
      <td className="py-1 pr-3 whitespace-nowrap">{item.row?.values.day ? units.onDay(item.row.values.day) : ""}</td>
      <td className="py-1 pr-3 break-words">
        {item.row ? words(item.row) : <span className="text-soft">left out</span>}
        {item.faults.map((fault) => (
          <span key={`${fault.cell} ${fault.message}`} className="block font-semibold text-hot">
            ▲ {fault.cell ? `${fault.cell}: ` : ""}
            {units.say(fault.message)}
          </span>
        ))}
      </td>
      <td className="py-1 whitespace-nowrap">
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="h-5 w-5"
            aria-label={`Leave out row ${item.line}`}
            checked={isOut}
            onChange={(event) => leaveOut([item.line], event.target.checked)}
          />
          <span className="text-[14px] text-soft">leave out</span>
        </label>
      </td>
    </tr>
  );
}

const NOUNS = {
  batches: ["batch", "batches"],
  burns: ["check", "checks"],
  recipes: ["recipe", "recipes"],
} as const;

/** What becomes of each row, and importing all of them. */
export function PreviewPanel(state: NotebookState & { preview: NonNullable<NotebookState["preview"]> }) {
  const { preview, busy, take, leaveOut, kind, isStale } = state;
  const words = useRowWords();
  const many = (fate: RowFate["fate"]) => preview.rows.filter((row) => row.fate === fate);
  const [taken, wrong, out] = [many("taken"), many("wrong"), many("left out")];
  const ordered = [...wrong, ...preview.rows.filter((row) => row.fate !== "wrong")];
  const [one, several] = NOUNS[kind];
  return (
    <section className="mt-6" aria-label="Preview" aria-busy={isStale}>
      <div className="flex flex-wrap items-center justify-between gap-3 border-b-[3px] border-ink pb-2">
        <h2>
          {countOf(taken.length, one, several)}
          {wrong.length > 0 ? <span className="text-hot">, {countOf(wrong.length, "row with errors", "rows with errors")}</span> : null}
          {out.length > 0 ? <span className="text-soft">, {out.length} left out</span> : null}
        </h2>
        <div className="flex flex-wrap gap-3">
          {wrong.length > 0 ? (
            <button
              type="button"
              className="press"
              onClick={() =>
                leaveOut(
                  wrong.map((row) => row.line),
                  true,
                )
              }
            >
              Leave out {countOf(wrong.length, "row with errors", "rows with errors")}
            </button>
          ) : null}
          <button
            type="button"
            className="action-button"
            disabled={busy !== null || isStale || wrong.length > 0 || taken.length === 0}
            onClick={() => void take()}
          >
            {busy === "importing" ? "Importing" : `Import ${countOf(taken.length, one, several)}`}
          </button>
        </div>
      </div>
      {wrong.length > 0 ? (
        <p className="mt-2 text-soft">
          Nothing is imported while rows have errors. Change how the sheet is read, fix the cells in the file, or leave these rows out.
        </p>
      ) : null}
      <table className="mt-2 w-full text-left">
        <thead className="text-[14px] text-soft">
          <tr>
            <th className="pr-3 text-right font-normal">row</th>
            <th className="font-normal">day</th>
            <th className="font-normal">as it is read</th>
            <th className="font-normal">choice</th>
          </tr>
        </thead>
        <tbody>
          {ordered.slice(0, MAX_SHOWN).map((item) => (
            <FateRow key={item.line} item={item} words={words} leaveOut={leaveOut} />
          ))}
        </tbody>
      </table>
      {ordered.length > MAX_SHOWN ? (
        <p className="mt-2 text-soft">And {countOf(ordered.length - MAX_SHOWN, "more row", "more rows")}, all without errors unless shown above.</p>
      ) : null}
    </section>
  );
}
