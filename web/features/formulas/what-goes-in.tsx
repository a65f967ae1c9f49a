"use client";

import { writeLimitParts, writePerWeight } from "@hearth/core";
import { Field } from "@/forms/fields";
import type { ColorRow } from "@/server/formulas/colors";
import { PotStrip } from "@/ui/pot-strip";
import { useUnits } from "@/ui/units";
import { Colors } from "./colors";
import type { PartKind } from "./editor-fields";
import { PartRows } from "./part-rows";
import type { FormulaState, useParts } from "./use-formula";

/** The load as a share of the wax and of the total, and per weight. */
function BothLoads({ ofWax, ofTotal }: { ofWax: number | null; ofTotal: number | null }) {
  const units = useUnits();
  if (ofWax === null || ofTotal === null)
    return (
      <p aria-live="polite" className="bg-paper px-3 py-2">
        Type a load to see both percentages.
      </p>
    );
  return (
    <p aria-live="polite" className="bg-paper px-3 py-2">
      <span className="figure text-[26px]">{units.percent(ofWax)}</span> of the wax = <span className="figure text-[26px]">{units.percent(ofTotal)}</span> of
      the total
      <span className="block text-[15px] text-soft">{writePerWeight(ofWax, units.mass)}</span>
    </p>
  );
}

/** The name of a formula, its parts with their shares, its color and its load. */
export function WhatGoesIn({
  state,
  parts: actions,
  colors,
  onNew,
}: {
  state: FormulaState;
  parts: ReturnType<typeof useParts>;
  colors: ColorRow[];
  onNew: (kind: PartKind, key: string, name: string) => void;
}) {
  const units = useUnits();
  const { fields, known, rows, draft, nameOf } = state;
  const { limit, parts } = draft;
  return (
    <section className="sheet">
      <h2 className="mb-2">Ingredients</h2>
      <div className="grid gap-2">
        <Field label="Name" {...fields.bind("name")} autoFocus={!state.formula} />
        <PartRows
          rows={rows}
          shelf={known.shelf}
          stocks={known.stocks}
          recentlyUsed={known.recentlyUsed}
          fields={fields as never}
          family={draft.family}
          onLook={known.look}
          onNew={onNew}
          onChoose={actions.choose}
          onAdd={actions.add}
          onDrop={actions.drop}
        />
        <Colors
          colors={colors}
          wax={parts.waxes[0]?.id ?? ""}
          scent={parts.fragrances[0]?.id ?? ""}
          dyes={parts.dyes ?? []}
          nameOf={nameOf}
          onTake={actions.takeColor}
        />
        <div className="grid grid-cols-[1fr_1.2fr] gap-4">
          <Field
            label="Load"
            unit="%"
            {...fields.bind("load")}
            large
            inputMode="decimal"
            hint={
              limit
                ? `${limit.name}: up to ${units.percent(limit.ppm)} of the wax${limit.parts ? `, from ${units.say(writeLimitParts(limit))}` : ""}.`
                : units.say("Or per weight, like {80 g/kg|1 oz/lb}.")
            }
          />
          <Field
            label="is a share"
            {...fields.bind("basis")}
            options={[
              { value: "wax", label: "of the wax" },
              { value: "total", label: "of the total" },
            ]}
          />
        </div>
        <BothLoads ofWax={draft.ofWax} ofTotal={draft.ofTotal} />
        {draft.sample ? <PotStrip parts={draft.sample} /> : null}
      </div>
    </section>
  );
}
