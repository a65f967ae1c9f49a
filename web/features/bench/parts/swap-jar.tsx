"use client";

import { namedLines, parseCount, SWAP_REASON_NAMES, SWAP_REASONS, type SwapReason } from "@hearth/core";
import { useMemo, useState } from "react";
import { choiceRule, Field, type FieldRule, useFields } from "@/forms/fields";
import type { Batch } from "@/log/use-batch";
import { FormMessage } from "@/ui/form-message";

/** Logs a vessel that was swapped for another before it was filled; nothing where only molds are filled. */
export function SwapJar({ batch }: { batch: Batch }) {
  const lines = namedLines(batch.plan.products).filter((line) => line.container === "vessel");
  const first = lines[0]?.key ?? "";
  const rules = useMemo(
    (): Record<string, FieldRule<unknown>> => ({
      product: choiceRule(first),
      jars: { initial: "1", parse: (text: string) => parseCount(text, { least: 1, most: 1_000, name: "vessels" }) },
      reason: choiceRule("chipped"),
    }),
    [first],
  );
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  if (lines.length === 0) return null;
  return (
    <details className="mb-3">
      <summary className="min-h-[44px] cursor-pointer py-2 font-semibold">A vessel was swapped</summary>
      <form
        ref={fields.form}
        aria-label="Swapped vessel"
        onSubmit={async (event) => {
          event.preventDefault();
          const all = fields.check();
          if (!all) return;
          const refusal = await batch.record({
            kind: "swapped",
            payload: { product: String(all.product), jars: all.jars as number, reason: all.reason as SwapReason },
          });
          setMessage(refusal?.message ?? "");
        }}
      >
        <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-3">
          <Field label="Which" {...fields.bind("product")} options={lines.map((line) => ({ value: line.key, label: line.name }))} />
          <Field label="How many" {...fields.bind("jars")} inputMode="numeric" />
          <Field label="Why" {...fields.bind("reason")} options={SWAP_REASON_NAMES.map((name) => ({ value: name, label: SWAP_REASONS[name] }))} />
        </div>
        <button type="submit" className="press mt-1">
          Log the swap
        </button>
        <FormMessage>{message}</FormMessage>
      </form>
    </details>
  );
}
