"use client";

import { bad, good, parseDay, readIngredients, type SheetIngredient } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { Field, type FieldRule, useFields, words } from "@/forms/fields";
import { parseText } from "@/forms/file-parse";
import { useWorkshop } from "@/log/workshop";
import { putSupplierSheet } from "@/server/inventory/commands";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { useNow, useUnits } from "@/ui/units";
import { Ingredients } from "./ingredients";
import type { SheetedKind } from "./stocked";

/** A table as it was pasted, cell by cell: heads are one row of it. */
function cellsOf(text: string): string[][] {
  if (text.trim() === "") return [];
  const read = parseText(text);
  return read.ok ? [read.sheet.heads, ...read.sheet.rows] : [];
}

/** The form of a safety data sheet. It is loaded when it is opened: what reads a pasted table is a good part of the script of the page. */
export function SupplierSheetForm({ kind, materialId, onClose }: { kind: SheetedKind; materialId: string; onClose: () => void }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const today = units.isoDay(useNow(60_000));
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
      fields.reset();
      onClose();
      router.refresh();
    });
  };
  return (
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
        <button type="button" className="press" onClick={onClose}>
          Cancel
        </button>
      </p>
      <FormMessage>{message}</FormMessage>
    </form>
  );
}
