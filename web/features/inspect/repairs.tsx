"use client";

import { bad, DEFECTS, defectOf, filledOf, good, REPAIRS, type Repair } from "@hearth/core";
import { useMemo, useState } from "react";
import { Field, type FieldRule, orNothing, useFields } from "@/forms/fields";
import { countRule, massRule } from "@/forms/rules";
import type { Batch } from "@/log/use-batch";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";

/** What was mended, with what, and whether it held at a second look. */
export function Repairs({ batch, product }: { batch: Batch; product: string }) {
  const { plan, state } = batch;
  const units = useUnits();
  const [message, setMessage] = useState("");
  const most = filledOf(plan, state, product);
  const seen = [...new Set(state.flaws.filter((flaw) => flaw.flaw.product === product).map((flaw) => flaw.flaw.defect))].filter((id) => id !== "cracked_glass");
  const rules = useMemo(
    () => ({
      mended: { initial: "", parse: (text: string) => (text ? good(text) : bad("empty", "Choose the flaw that was reworked.")) } satisfies FieldRule<string>,
      how: { initial: REPAIRS[0], parse: (text: string) => good(text as Repair) } satisfies FieldRule<Repair>,
      jars: countRule({ least: 1, most, name: "jars" }, "1"),
      used: orNothing(massRule(units, { zero: true })),
    }),
    [most, units],
  );
  const fields = useFields(rules);
  const add = async () => {
    const all = fields.check();
    if (!all) return;
    const typed = { mended: fields.text("mended"), how: fields.text("how"), jars: fields.text("jars"), used: fields.text("used") };
    fields.reset();
    const refusal = await batch.record({
      kind: "repaired",
      payload: { product, defect: all.mended, how: all.how, jars: all.jars, mg: all.used as number | null },
    });
    setMessage(refusal?.message ?? "");
    if (refusal) fields.fill(typed);
  };
  const mine = state.repairs.filter((repair) => repair.product === product);
  return (
    <section aria-label="Rework" className="mt-6">
      <h2 className="border-b-[3px] border-ink pb-1">Rework</h2>
      {mine.map((item) => (
        <div key={item.eventId} className="flex flex-wrap items-center gap-x-3 border-b border-line py-2">
          <span>
            <strong>{defectOf(item.defect)?.name}</strong>, {item.how}, {item.jars} jars{item.mg ? `, ${units.g(item.mg)}` : ""}
          </span>
          {item.checkedAt ? (
            <span className="ml-auto">
              fixed on {item.held} of {item.jars}
            </span>
          ) : (
            <span className="ml-auto flex gap-2">
              <button
                type="button"
                className="press"
                onClick={() => void batch.record({ kind: "repairChecked", payload: { repair: item.eventId, held: item.jars } })}
              >
                Fixed
              </button>
              <button type="button" className="press" onClick={() => void batch.record({ kind: "repairChecked", payload: { repair: item.eventId, held: 0 } })}>
                Returned
              </button>
            </span>
          )}
        </div>
      ))}
      <form
        ref={fields.form}
        className="mt-2 grid gap-3 sm:grid-cols-[1fr_1fr_90px_120px_auto] sm:items-end"
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <Field
          label="Reworked flaw"
          {...fields.bind("mended")}
          options={[
            { value: "", label: "choose" },
            ...(seen.length > 0 ? seen : DEFECTS.filter((defect) => defect.seen === "set").map((defect) => defect.id)).map((id) => ({
              value: id,
              label: defectOf(id)?.name ?? id,
            })),
          ]}
        />
        <Field label="By" {...fields.bind("how")} options={REPAIRS.map((repair) => ({ value: repair, label: repair }))} />
        <Field label="Jars" {...fields.bind("jars")} inputMode="numeric" />
        <Field label={`Wax used, ${units.mass}`} {...fields.bind("used")} inputMode="decimal" />
        <button type="submit" className="press">
          Save
        </button>
      </form>
      <FormMessage className="mt-2">{message}</FormMessage>
    </section>
  );
}
