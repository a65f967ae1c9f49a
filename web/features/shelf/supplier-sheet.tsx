"use client";

import { bad, good, parseDay, readIngredients, type SheetIngredient } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { Field, type FieldRule, useFields, words } from "@/forms/fields";
import { parseText } from "@/forms/file-parse";

import { useWorkshop } from "@/log/workshop";
import { putSupplierSheet, takeSupplierSheet } from "@/server/inventory/commands";
import type { KeptSheet } from "@/server/inventory/safety-data-sheets";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { toast } from "@/ui/toast";
import { useNow, useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";

export const SHEETED = ["wax", "fragrance", "dye", "additive"] as const;

/** A table as it was pasted, cell by cell: heads are one row of it. */
function cellsOf(text: string): string[][] {
  if (text.trim() === "") return [];
  const read = parseText(text);
  return read.ok ? [read.sheet.heads, ...read.sheet.rows] : [];
}

function Ingredients({ rows }: { rows: readonly SheetIngredient[] }) {
  const units = useUnits();
  if (rows.length === 0) return <p className="text-soft">No classified ingredients listed.</p>;
  return (
    <WideTable label="Ingredients" least={640} heads={["ingredient", "share", "classes", "M", "ATE", "own limits"]}>
      {rows.map((row) => (
        <tr key={row.name} className="border-t border-line align-baseline">
          <td className="py-1 pr-4">
            {row.name}
            {row.cas || row.ec ? <span className="block text-[14px] text-soft">{[row.cas, row.ec].filter(Boolean).join(", ")}</span> : null}
          </td>
          <td className="figure pr-4">
            {row.from === undefined ? "" : `${units.n(row.from, 3)}–`}
            {units.n(row.percent, 3)} %
          </td>
          <td className="pr-4">
            {row.classes.join(", ") || "none"}
            {row.unread.length > 0 ? <span className="block text-hot">▲ not calculated here: {row.unread.join(", ")}</span> : null}
          </td>
          <td className="pr-4">
            {[row.m ? units.n(row.m, 0) : "", row.mAcute ? `acute ${units.n(row.mAcute, 0)}` : "", row.mChronic ? `chronic ${units.n(row.mChronic, 0)}` : ""]
              .filter(Boolean)
              .join(", ")}
          </td>
          <td className="pr-4">
            {[
              row.ateOral ? `oral ${units.n(row.ateOral, 0)} mg/kg` : "",
              row.ateDermal ? `dermal ${units.n(row.ateDermal, 0)} mg/kg` : "",
              row.ateInhaled ? `inhaled ${units.n(row.ateInhaled, 2)} mg/l` : "",
            ]
              .filter(Boolean)
              .join(", ")}
          </td>
          <td>{row.limits.map((limit) => `${limit.class} ≥ ${units.n(limit.percent, 4)} %`).join(", ")}</td>
        </tr>
      ))}
    </WideTable>
  );
}

/** What the supplier's safety data sheet says of what is in a material: the newest counts for labels, the earlier ones stay. */
export function SupplierSheetPanel({ kind, materialId, sheets }: { kind: (typeof SHEETED)[number]; materialId: string; sheets: KeptSheet[] }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const today = units.isoDay(useNow(60_000));
  const [open, setOpen] = useState(false);
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const rules = useMemo(
    (): { on: FieldRule<string>; revision: FieldRule<string>; table: FieldRule<SheetIngredient[]> } => ({
      on: {
        initial: "",
        parse: (text) => {
          const day = parseDay(text, today, units.locale);
          return day ? good(day) : bad("empty", `Give the day of the sheet, like ${units.onDate(today)}.`);
        },
        echo: (day) => units.onDate(day),
      },
      revision: words("", 60),
      table: {
        initial: "",
        parse: (text) => {
          const rows = readIngredients(cellsOf(text));
          const wrong = rows.find((row) => !row.ingredient);
          return wrong ? bad("not-understood", `Row ${wrong.row}: ${wrong.fault}`) : good(rows.flatMap((row) => row.ingredient ?? []));
        },
      },
    }),
    [today, units],
  );
  const fields = useFields(rules);
  const [newest, ...earlier] = sheets;
  const read = readIngredients(cellsOf(fields.text("table")));
  const save = () => {
    const all = fields.check();
    if (!all) return;
    start(async () => {
      const outcome = await callAction(
        putSupplierSheet(workshop, {
          id: v7(),
          kind,
          materialId,
          sheet: { revision: all.revision, on: all.on, ingredients: all.table.map((item) => ({ ...item })) },
        }),
      );
      if (!outcome.ok) {
        fields.refuse(
          Object.fromEntries(
            Object.entries(outcome.fields).map(([name, messages]) => [
              name === "sheet.on" ? "on" : name.startsWith("sheet.ingredients") ? "table" : name,
              messages,
            ]),
          ),
        );
        return setMessage(outcome.message);
      }
      setMessage("");
      setOpen(false);
      fields.reset();
      router.refresh();
    });
  };
  const take = (id: string, isDeleted: boolean) =>
    start(async () => {
      const outcome = await callAction(takeSupplierSheet(workshop, { id, gone: isDeleted }));
      if (!outcome.ok) return setMessage(outcome.message);
      if (isDeleted) toast("The safety data sheet was deleted.", { action: { label: "Undo", onClick: () => take(id, false) } });
      router.refresh();
    });
  return (
    <section className="mt-7" aria-label="Supplier's sheet">
      <h2 className="border-b-[3px] border-ink pb-1">Safety data sheet</h2>
      {newest ? (
        <>
          <p className="mt-2">
            Of {units.onDate(newest.sheet.on)}
            {newest.sheet.revision ? `, version ${newest.sheet.revision}` : ""}, entered {units.day(newest.at)}.{" "}
            <button type="button" className="underline" disabled={busy} onClick={() => take(newest.id, true)}>
              Delete sheet
            </button>
          </p>
          <Ingredients rows={newest.sheet.ingredients} />
          {earlier.length > 0 ? (
            <p className="mt-1 text-[15px] text-soft">
              Earlier:{" "}
              {earlier.map((keptSheet) => `${units.onDate(keptSheet.sheet.on)}${keptSheet.sheet.revision ? ` (${keptSheet.sheet.revision})` : ""}`).join(", ")}.
            </p>
          ) : null}
        </>
      ) : (
        <p className="mt-2 text-soft">
          None yet. Labels that rest on this {kind} say so. Enter its ingredients with percent and classes from sections 3 and 11 of the sheet.
        </p>
      )}
      {open ? (
        <form
          ref={fields.form}
          className="sheet mt-3"
          onSubmit={(event) => {
            event.preventDefault();
            save();
          }}
        >
          <div className="grid gap-x-4 sm:grid-cols-2">
            <Field label="Day of the sheet" {...fields.bind("on")} autoFocus />
            <Field label="Its version" {...fields.bind("revision")} />
          </div>
          <Field
            label="Ingredients"
            {...fields.bind("table")}
            lines={7}
            hint="Paste the table, or type one row on each line: name; percent or range; classes; M-factor; ATE; specific limits; CAS number; EC number. Leave it empty if the sheet lists nothing classified."
          />
          {read.length > 0 ? (
            <>
              <Ingredients rows={read.flatMap((row) => row.ingredient ?? [])} />
              {read
                .filter((row) => !row.ingredient)
                .map((row) => (
                  <p key={row.row} className="text-[15px] font-semibold text-hot">
                    ▲ Row {row.row}: {row.fault}
                  </p>
                ))}
            </>
          ) : null}
          <p className="mt-3 flex flex-wrap gap-2">
            <button type="submit" className="action-button" disabled={busy}>
              Save safety data sheet
            </button>
            <button type="button" className="press" onClick={() => setOpen(false)}>
              Cancel
            </button>
          </p>
          <FormMessage>{message}</FormMessage>
        </form>
      ) : (
        <button type="button" className="press mt-3" onClick={() => setOpen(true)}>
          {newest ? "Add a newer safety data sheet" : "Add its safety data sheet"}
        </button>
      )}
    </section>
  );
}
