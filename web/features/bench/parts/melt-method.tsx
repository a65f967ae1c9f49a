"use client";

import { good, MELT_METHOD_NAMES, MELT_METHODS } from "@hearth/core";
import { useState } from "react";
import { choiceRule, Field, type FieldRule, useFields } from "@/forms/fields";
import type { Batch } from "@/log/use-batch";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";

const RULES: Record<string, FieldRule<unknown>> = {
  how: choiceRule("double boiler"),
  water: { initial: "", parse: (text: string) => good(text === "" ? null : text === "yes") },
};

/** How the wax of a pot is melted, and whether water got in: recorded once, beside its heating. It is compared with flaws later. */
export function MeltMethod({ batch, pot }: { batch: Batch; pot: number }) {
  const units = useUnits();
  const fields = useFields(RULES);
  const [message, setMessage] = useState("");
  const melted = batch.state.melted[pot];
  if (melted)
    return (
      <p className="mt-2 text-[15px] text-inside">
        ✓ melted {MELT_METHODS[melted.how]}
        {melted.water === null ? "" : melted.water ? ", water got in" : ", no water got in"}, recorded at {units.clock(melted.at)}
        {melted.water ? <span className="block font-semibold text-hot">▲ Do not heat it hard: skim the drops out, or let it set and dry it off.</span> : null}
      </p>
    );
  return (
    <form
      ref={fields.form}
      className="mt-3 border-t border-line pt-2"
      aria-label="How it is melted"
      onSubmit={async (event) => {
        event.preventDefault();
        const all = fields.check();
        if (!all) return;
        const refusal = await batch.record({ kind: "melted", payload: { pot, how: all.how as "plate", water: all.water as boolean | null } });
        setMessage(refusal?.message ?? "");
      }}
    >
      <div className="grid grid-cols-2 items-end gap-x-4 sm:grid-cols-[minmax(0,260px)_170px_auto]">
        <Field label="Melted" {...fields.bind("how")} options={MELT_METHOD_NAMES.map((name) => ({ value: name, label: MELT_METHODS[name] }))} />
        <Field
          label="Water in the wax"
          {...fields.bind("water")}
          options={[
            { value: "", label: "not looked" },
            { value: "no", label: "none" },
            { value: "yes", label: "got in" },
          ]}
        />
        <button type="submit" className="press mb-3 max-sm:col-span-2">
          Save how it is melted
        </button>
      </div>
      <FormMessage>{message}</FormMessage>
    </form>
  );
}
