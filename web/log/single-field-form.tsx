"use client";

import { useMemo, useState } from "react";
import { Field, useFields } from "@/forms/fields";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";
import type { SendProblem } from "./store";
import { entryRule } from "./value-rule";

interface SingleFieldFormProps {
  log: {
    enteredBy: (kind: string) => Parameters<typeof entryRule>[1];
    recordAny: (entered: { kind: string; payload: unknown }) => Promise<SendProblem | null>;
  };
  kind: string;
}

/** The form that an event type of one field has without a view of its own: the field, and the button that records it. */
export function SingleFieldForm({ log, kind }: SingleFieldFormProps) {
  const units = useUnits();
  const { enteredBy } = log;
  const asks = useMemo(() => enteredBy(kind), [enteredBy, kind]);
  const entry = useMemo(() => entryRule(kind, asks, units), [kind, asks, units]);
  const rules = useMemo(() => ({ value: entry.rule }), [entry]);
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  const record = async (text: string, value: unknown) => {
    setMessage("");
    fields.reset();
    const refusal = await log.recordAny(entry.body(value));
    if (!refusal) return;
    setMessage(refusal.message);
    fields.set("value", text);
  };
  return (
    <form
      ref={fields.form}
      className="mt-3"
      onSubmit={(event) => {
        event.preventDefault();
        const all = fields.check();
        if (all) void record(fields.text("value"), all.value);
      }}
    >
      <div className="flex items-start gap-3">
        <div className="flex-1">
          <Field label={entry.label} {...fields.bind("value")} placeholder={asks.placeholder ?? ""} />
        </div>
        <button type="submit" className="press mt-[27px]">
          {asks.button}
        </button>
      </div>
      <FormMessage className="">{message}</FormMessage>
    </form>
  );
}
