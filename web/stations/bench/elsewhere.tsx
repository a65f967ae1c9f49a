"use client";

import { good, parseCount, WAY_NAMES, WAYS, type Way } from "@hearth/core";
import { useMemo, useState } from "react";
import { Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { massRule } from "@/forms/rules";
import type { Batch } from "@/log/use-batch";
import { Said } from "@/ui/said";
import { useUnits } from "@/ui/units";

/** Wax that went elsewhere than planned: spilt, into melts, into another pot or out of one. */
export function ElsewhereForm({ batch }: { batch: Batch }) {
  const units = useUnits();
  const rules = useMemo(
    (): Record<string, FieldRule<unknown>> => ({
      how: { initial: "spilt", parse: (text: string) => good(text) },
      mg: orNothing(massRule(units)),
      other: orNothing({ initial: "", parse: (text: string) => parseCount(text, { least: 1, most: 999_999_999, name: "the pot" }) }),
    }),
    [units],
  );
  const fields = useFields(rules);
  const [said, setSaid] = useState("");
  const how = fields.text("how") as Way;
  const between = how === "given" || how === "taken";
  return (
    <form
      ref={fields.form}
      className="mt-3"
      onSubmit={async (event) => {
        event.preventDefault();
        const all = fields.check();
        if (!all) return;
        const other = between ? (all.other as number | null) : null;
        if (between && other === null) return fields.refuse({ other: ["Say which pot, by its number."] });
        setSaid("");
        const refusal = await batch.record({ kind: "moved", payload: { pot: batch.next?.pot ?? 0, how, mg: all.mg as number | null, other } });
        if (refusal) return setSaid(refusal.message);
        fields.fill({ mg: "", other: "" });
      }}
    >
      <div className="grid grid-cols-2 items-start gap-x-4 sm:grid-cols-[minmax(0,1fr)_130px_110px_auto]">
        <Field label="Wax that went elsewhere" {...fields.bind("how")} options={WAY_NAMES.map((one) => ({ value: one, label: WAYS[one] }))} />
        <Field label="It weighed" unit={units.mass} {...fields.bind("mg")} inputMode="decimal" placeholder="not weighed" />
        {between ? <Field label="Which pot" {...fields.bind("other")} inputMode="numeric" /> : <span className="max-sm:hidden" />}
        <button type="submit" className="press mt-[27px]">
          Put it down
        </button>
      </div>
      <Said>{said}</Said>
    </form>
  );
}
