"use client";

import { good } from "@hearth/core";
import { useMemo, useState } from "react";
import { ask } from "@/forms/ask";
import { Field, type FieldRule, orNothing, useFields, words } from "@/forms/fields";
import { massRule } from "@/forms/rules";
import { usePlace } from "@/log/place";
import type { Batch } from "@/log/use-batch";
import { Link, useRouter } from "@/ui/address";
import { Said } from "@/ui/said";
import { useUnits } from "@/ui/units";
import { undoBatch } from "./commands";

/** Before its first entry a batch is undone; after it, it is abandoned, and says what became of the wax. */
export function GiveUp({ batch, batchId }: { batch: Batch; batchId: string }) {
  const units = useUnits();
  const place = usePlace();
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [said, setSaid] = useState("");
  const rules = useMemo(
    () => ({
      wax: { initial: "kept", parse: good } as FieldRule<unknown>,
      mg: orNothing(massRule(units)) as FieldRule<unknown>,
      why: words("", 500) as FieldRule<unknown>,
    }),
    [units],
  );
  const fields = useFields(rules);
  if (batch.facts.closed || batch.pouredAt) return null;
  if (batch.facts.abandoned)
    return (
      <p className="flex flex-wrap items-center gap-3">
        <strong>Abandoned</strong>; the wax was {batch.facts.abandoned.wax}.
        <button
          type="button"
          className="press"
          onClick={() =>
            void batch.record({ kind: "withdrawn", payload: { why: "taken up again", whole: true }, corrects: batch.facts.abandoned?.eventId ?? null })
          }
        >
          Take it up again
        </button>
        <Link className="press" href="/bench">
          Back to the bench
        </Link>
      </p>
    );
  const untouched = batch.total <= 1 && batch.events.length <= 1;
  const undo = async () => {
    const outcome = await ask(undoBatch(place, { batchId }));
    if (!outcome.ok) return setSaid(outcome.message);
    router.push("/plan");
  };
  const abandon = async () => {
    const all = fields.check();
    if (!all) return;
    const refusal = await batch.record({ kind: "abandoned", payload: { wax: all.wax as "kept", mg: all.mg as number | null, why: all.why as string } });
    setSaid(refusal?.message ?? "");
    if (!refusal) setOpen(false);
  };
  return (
    <div>
      {untouched ? (
        <button type="button" className="press" onClick={() => void undo()}>
          Undo the start
        </button>
      ) : (
        <button type="button" className="press" aria-expanded={open} onClick={() => setOpen(!open)}>
          Abandon this batch
        </button>
      )}
      {open && !untouched ? (
        <form
          ref={fields.form}
          className="sheet mt-2"
          onSubmit={(event) => {
            event.preventDefault();
            void abandon();
          }}
        >
          <div className="grid gap-x-4 sm:grid-cols-2">
            <Field
              label="What became of the wax"
              {...fields.bind("wax")}
              options={[
                { value: "kept", label: "kept, labelled for the same formula" },
                { value: "thrown away", label: "thrown away" },
              ]}
            />
            <Field label="How much" unit={units.mass} {...fields.bind("mg")} inputMode="decimal" placeholder="not weighed" />
          </div>
          <Field label="Why" {...fields.bind("why")} />
          <button type="submit" className="press">
            Abandon it
          </button>
          <p className="mt-1 text-[14px] text-soft">What was weighed stays drawn from the stock. The record stays, and it can be taken up again.</p>
        </form>
      ) : null}
      <Said>{said}</Said>
    </div>
  );
}
