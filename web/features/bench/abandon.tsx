"use client";

import { useMemo, useState } from "react";
import { choiceRule, Field, type FieldRule, orNothing, useFields, words } from "@/forms/fields";
import { massRule } from "@/forms/rules";
import type { Batch } from "@/log/use-batch";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";

/** Abandons a batch: what became of its wax, and why. */
export function Abandon({ batch, onDone }: { batch: Batch; onDone: () => void }) {
  const units = useUnits();
  const [message, setMessage] = useState("");
  const rules = useMemo(
    () => ({
      wax: choiceRule("kept"),
      mg: orNothing(massRule(units)) as FieldRule<unknown>,
      why: words("", 500) as FieldRule<unknown>,
    }),
    [units],
  );
  const fields = useFields(rules);
  const abandon = async () => {
    const all = fields.check();
    if (!all) return;
    const refusal = await batch.record({ kind: "abandoned", payload: { wax: all.wax as "kept", mg: all.mg as number | null, why: all.why as string } });
    setMessage(refusal?.message ?? "");
    if (!refusal) onDone();
  };
  return (
    <form
      ref={fields.form}
      className="sheet mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        void abandon();
      }}
    >
      <Field
        label="The wax was"
        {...fields.bind("wax")}
        options={[
          { value: "kept", label: "kept and labeled" },
          { value: "thrown away", label: "thrown away" },
        ]}
      />
      <Field label="How much" unit={units.mass} {...fields.bind("mg")} inputMode="decimal" placeholder="not weighed" />
      <Field label="Why" {...fields.bind("why")} />
      <button type="submit" className="press">
        Abandon batch
      </button>
      <p className="mt-1 text-[14px] text-soft">What was weighed stays deducted from stock. The record stays, and the batch can be resumed.</p>
      <FormMessage>{message}</FormMessage>
    </form>
  );
}
