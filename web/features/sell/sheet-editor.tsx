"use client";

import { good, type LabelSheet, PAPERS, type PaperName, parseLength, writeLength } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { choiceRule, Field, type FieldRule, named, useFields } from "@/forms/fields";
import { countRule } from "@/forms/rules";
import { useWorkshop } from "@/log/workshop";
import { saveLabelSheet } from "@/server/sales/commands";
import type { KeptLabelSheet } from "@/server/sales/label-settings";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";

const MEASURES = [
  ["width", "Label's width"],
  ["height", "Label's height"],
  ["left", "From the left edge"],
  ["top", "From the top edge"],
  ["gapAcross", "Gap across"],
  ["gapDown", "Gap down"],
] as const;

/** A sheet of labels drawn to scale. */
function SheetPicture({ sheet }: { sheet: LabelSheet }) {
  const paper = PAPERS[sheet.paper];
  const at = (n: number) => ({
    x: sheet.left + (n % sheet.columns) * (sheet.width + sheet.gapAcross),
    y: sheet.top + Math.floor(n / sheet.columns) * (sheet.height + sheet.gapDown),
  });
  return (
    <svg
      viewBox={`0 0 ${paper.width * 1_000} ${paper.height * 1_000}`}
      role="img"
      aria-label={`${sheet.rows} rows of ${sheet.columns} labels`}
      className="w-full max-w-[200px] border border-line bg-sheet"
    >
      {Array.from({ length: Math.min(800, sheet.rows * sheet.columns) }, (_, n) => {
        const { x, y } = at(n);
        return sheet.round ? (
          <circle
            key={`${x} ${y}`}
            cx={x + sheet.width / 2}
            cy={y + sheet.height / 2}
            r={sheet.width / 2}
            className="fill-paper stroke-ink"
            vectorEffect="non-scaling-stroke"
          />
        ) : (
          <rect key={`${x} ${y}`} x={x} y={y} width={sheet.width} height={sheet.height} className="fill-paper stroke-ink" vectorEffect="non-scaling-stroke" />
        );
      })}
    </svg>
  );
}

/** Describes a sheet of labels by its measures, beginning from one that is like it. */
export function SheetEditor({ of, onDone }: { of: KeptLabelSheet; onDone: (id: string | null) => void }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const [freshId] = useState(() => v7());
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const rules = useMemo((): Record<string, FieldRule<unknown>> => {
    const length = (um: number): FieldRule<unknown> => ({
      initial: writeLength(um, units.length),
      parse: (text) => (/^\s*0+([.,]0+)?\s*(mm|in|")?\s*$/.test(text) ? good(0) : parseLength(text, { least: 0.1, most: 300 }, units.length)),
    });
    return {
      name: named("the sheet", of.own ? of.name : "") as FieldRule<unknown>,
      paper: choiceRule(of.sheet.paper),
      round: { initial: of.sheet.round ? "yes" : "", parse: (text) => good(text === "yes") },
      rows: countRule({ least: 1, most: 40, name: "rows" }, String(of.sheet.rows)) as FieldRule<unknown>,
      columns: countRule({ least: 1, most: 20, name: "columns" }, String(of.sheet.columns)) as FieldRule<unknown>,
      ...Object.fromEntries(MEASURES.map(([key]) => [key, length(of.sheet[key])])),
    };
  }, [of, units]);
  const fields = useFields(rules);
  const v = fields.values;
  const drawn =
    MEASURES.every(([key]) => typeof v[key] === "number") && v.rows && v.columns ? ({ ...v, paper: v.paper as PaperName } as unknown as LabelSheet) : null;
  const save = () => {
    const all = fields.check();
    if (!all) return;
    const { name, ...sheet } = all;
    const id = of.own ? of.id : freshId;
    start(async () => {
      const outcome = await callAction(saveLabelSheet(workshop, { id, name, sheet }));
      if (!outcome.ok) {
        fields.refuse(Object.fromEntries(Object.entries(outcome.fields).map(([key, messages]) => [key.replace("sheet.", ""), messages])));
        return setMessage(outcome.message);
      }
      onDone(id);
    });
  };
  return (
    <form
      ref={fields.form}
      className="mt-4 border-t-[3px] border-ink pt-3"
      aria-label="Custom sheet"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <div className="grid gap-x-4 sm:grid-cols-2">
        <Field label="Name" {...fields.bind("name")} hint="A name of your own, like jar lids." />
        <Field
          label="Paper"
          {...fields.bind("paper")}
          options={[
            { value: "a4", label: "A4" },
            { value: "letter", label: "Letter" },
          ]}
        />
        <Field label="Columns" {...fields.bind("columns")} inputMode="numeric" />
        <Field label="Rows" {...fields.bind("rows")} inputMode="numeric" />
        <Field
          label="Shape"
          {...fields.bind("round")}
          options={[
            { value: "", label: "square corners" },
            { value: "yes", label: "round" },
          ]}
        />
        {MEASURES.map(([key, label]) => (
          <Field key={key} label={label} {...fields.bind(key)} />
        ))}
      </div>
      {drawn ? <SheetPicture sheet={drawn} /> : null}
      <p className="mt-3 flex gap-2">
        <button type="submit" className="press" disabled={busy}>
          Save sheet
        </button>
        <button type="button" className="press" onClick={() => onDone(null)}>
          Cancel
        </button>
      </p>
      <FormMessage>{message}</FormMessage>
    </form>
  );
}
