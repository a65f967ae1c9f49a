"use client";

import { AGAIN, type Again, isLoss, isPoured, leftInPot, parseCount, WAY_NAMES, WAYS, type Way } from "@hearth/core";
import { useMemo, useState } from "react";
import { choiceRule, Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { massRule } from "@/forms/rules";
import type { Batch } from "@/log/use-batch";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";

const AGAIN_WORDS: Record<Again, string> = {
  missing: "weigh what is missing again",
  all: "all of it is lost: weigh everything again",
  none: "go on with what is left",
};

/** Wax that went elsewhere than planned: spilled, into melts, into another pot or out of one. What is lost before the pour leads back to weighing. */
export function ElsewhereForm({ batch }: { batch: Batch }) {
  const units = useUnits();
  const rules = useMemo(
    (): Record<string, FieldRule<unknown>> => ({
      how: choiceRule("spilt"),
      mg: orNothing(massRule(units)),
      again: choiceRule("missing"),
      back: orNothing(massRule(units)),
      other: orNothing({ initial: "", parse: (text: string) => parseCount(text, { least: 1, most: 999_999_999, name: "the pot" }) }),
    }),
    [units],
  );
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  const how = fields.text("how") as Way;
  const between = how === "given" || how === "taken";
  const pot = batch.next?.pot ?? 0;
  const left = leftInPot(batch.plan, batch.state, pot);
  const lost = isLoss(how) && left > 0 && !isPoured(batch.plan, batch.state, pot);
  const again = fields.text("again") as Again;
  return (
    <form
      ref={fields.form}
      className="mt-3"
      onSubmit={async (event) => {
        event.preventDefault();
        const all = fields.check();
        if (!all) return;
        const other = between ? (all.other as number | null) : null;
        if (between && other === null) return fields.refuse({ other: ["Enter the number of the pot."] });
        const mg = (all.mg as number | null) ?? (lost && again === "all" ? left : null);
        if (lost && again === "missing" && mg === null)
          return fields.refuse({ mg: ["Enter how much was lost, so that the weights to add can be calculated."] });
        setMessage("");
        const back = (isLoss(how) && (all.back as number | null)) || undefined;
        const refusal = await batch.record({
          kind: "transferred",
          payload: { pot, how, mg, other, ...(lost ? { again } : {}), ...(back ? { backMg: back } : {}) },
        });
        if (refusal) return setMessage(refusal.message);
        fields.fill({ mg: "", other: "", back: "" });
      }}
    >
      <div className="grid grid-cols-2 items-start gap-x-4 sm:grid-cols-[minmax(0,1fr)_130px_110px]">
        <Field label="Wax lost or moved" {...fields.bind("how")} options={WAY_NAMES.map((wayName) => ({ value: wayName, label: WAYS[wayName] }))} />
        <Field label="Weight" unit={units.mass} {...fields.bind("mg")} inputMode="decimal" placeholder="not weighed" />
        {between ? <Field label="Which pot" {...fields.bind("other")} inputMode="numeric" /> : <span className="max-sm:hidden" />}
      </div>
      {isLoss(how) ? (
        <div className="grid grid-cols-1 items-start gap-x-4 sm:grid-cols-2">
          {lost ? (
            <Field
              label={`What next (${units.g(left)} in the pot)`}
              {...fields.bind("again")}
              options={AGAIN.map((item) => ({ value: item, label: AGAIN_WORDS[item] }))}
              hint="Heating, adding and stirring are done again too."
            />
          ) : null}
          <Field
            label="Saved, back to stock"
            unit={units.mass}
            {...fields.bind("back")}
            inputMode="decimal"
            placeholder="none"
            hint="As a lot of its own. Use scented wax for melts."
          />
        </div>
      ) : null}
      <button type="submit" className="press mt-2">
        Log this wax
      </button>
      <FormMessage>{message}</FormMessage>
    </form>
  );
}
