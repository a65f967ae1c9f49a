"use client";

import type { Description, EntryOf, EventOf } from "@hearth/core";
import { useMemo, useState } from "react";
import { Field, type FieldRule, useFields, words } from "@/forms/fields";
import { whenRule } from "@/forms/rules";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";
import type { SendProblem } from "./store";

/** What of an entry can be typed anew. */
export interface Correctable {
  label: string;
  rule: FieldRule<unknown>;
  body: (value: unknown) => { kind: string; payload: unknown };
}
/** A log as far as its entries are shown and corrected. */
export interface ShownLog<E extends EventOf> {
  entries: EntryOf<E>[];
  total: number;
  now: string;
  name: (of: string | null) => string;
  tell: (event: E) => Required<Description>;
  /** What is said where only the program itself corrects such an entry; null of all others. */
  onlyByCommand: (kind: string) => string | null;
  correctableField: (event: EventOf) => Correctable | null;
  correct: (entered: { kind: string; payload: unknown; corrects: string; happenedAt?: string }) => Promise<SendProblem | null>;
}

/** Types an entry anew, or takes it back. */
export function Correction({ event, log, onDone }: { event: EventOf; log: Pick<ShownLog<never>, "now" | "correctableField" | "correct">; onDone: () => void }) {
  const units = useUnits();
  const value = log.correctableField(event);
  const rules = useMemo(
    () => ({
      value: (value?.rule ?? words()) as FieldRule<unknown>,
      at: whenRule(log.now, units) as FieldRule<unknown>,
    }),
    [value?.rule, log.now, units],
  );
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  /** What was logged counts at once, here too: the form waits unseen for the answer, and is back with what was typed where that is a no. */
  const [sent, setSent] = useState(false);
  const finish = async (entered: { kind: string; payload: unknown; corrects: string; happenedAt?: string }) => {
    setSent(true);
    const refusal = await log.correct(entered);
    if (!refusal) return onDone();
    setSent(false);
    setMessage(refusal.message);
  };
  return (
    <form
      ref={fields.form}
      hidden={sent}
      className="mt-2 mb-1 border-l-4 border-ink bg-paper p-3"
      onKeyDown={(pressed) => pressed.key === "Escape" && onDone()}
      onSubmit={(submitted) => {
        submitted.preventDefault();
        if (!value) return;
        const all = fields.check();
        if (all) void finish({ ...value.body(all.value), corrects: event.id, happenedAt: (all.at as string | null) ?? event.happenedAt });
      }}
    >
      <div className="grid gap-x-4 sm:grid-cols-2">
        {value?.label ? <Field label={value.label} {...fields.bind("value")} autoFocus /> : null}
        {value ? <Field label="When" {...fields.bind("at")} placeholder={units.clock(event.happenedAt)} hint="Leave empty to keep its time." /> : null}
      </div>
      <FormMessage className="">{message}</FormMessage>
      <div className="mt-1 flex flex-wrap gap-3">
        {value ? (
          <button type="submit" className="press">
            Save correction
          </button>
        ) : null}
        <button type="button" className="press" onClick={() => void finish({ kind: "withdrawn", payload: { why: "", mode: "delete" }, corrects: event.id })}>
          Delete entry
        </button>
        <button type="button" className="press" onClick={onDone}>
          Cancel
        </button>
      </div>
      <p className="mt-1 text-[14px] text-soft">The original entry stays in the record, struck through.</p>
    </form>
  );
}
