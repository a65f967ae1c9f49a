"use client";

import { bad, type CustomCause, defectOf, good, keyOf, parseNumber, RECORD_KEY_NAMES, type RecordKeyName } from "@hearth/core";
import { useMemo, useState } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { choiceRule, Field, type FieldRule, useFields } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { dropCause, saveCause } from "@/server/findings/commands";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { unitOfKey } from "@/ui/logged";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";

const SIDES = [
  { value: "above", label: "is above" },
  { value: "below", label: "is below" },
  { value: "yes", label: "is yes" },
  { value: "no", label: "is no" },
] as const;

/** Causes of the workshop's own for a flaw: added in its words, compared with a figure or a choice of the record, or against nothing. */
export function OwnCauses({ defect, causes }: { defect: string; causes: readonly CustomCause[] }) {
  const workshop = useWorkshop();
  const units = useUnits();
  const router = useRouter();
  const [message, setMessage] = useState("");
  const rules = useMemo(
    () => ({
      words: {
        initial: "",
        parse: (text: string) => (text.trim().length > 1 ? good(text.trim()) : bad("empty", "Enter the cause.")),
      } satisfies FieldRule<string>,
      key: { initial: "", parse: (text: string) => good(text as RecordKeyName | "") } satisfies FieldRule<RecordKeyName | "">,
      side: choiceRule("above"),
      figure: { initial: "", parse: (text: string) => (text.trim() ? parseNumber(text) : good(null)) } satisfies FieldRule<number | null>,
    }),
    [],
  );
  const fields = useFields(rules);
  const key = fields.text("key") as RecordKeyName | "";
  const yesNo = key !== "" && keyOf(key).kind === "yes-no";
  const add = async () => {
    const all = fields.check();
    if (!all) return;
    if (all.key && !yesNo && all.figure === null) return fields.refuse({ figure: ["From which value?"] });
    const test = !all.key ? null : yesNo ? { is: all.side !== "no" } : { [all.side]: unitOfKey(units, all.key).toRecord(all.figure as number) };
    const out = await callAction(saveCause(workshop, { id: v7(), defect, words: all.words, reason: "", key: all.key || null, test }));
    if (!out.ok) return setMessage(out.message);
    setMessage("");
    fields.reset();
    router.refresh();
  };
  const drop = async (item: CustomCause) => {
    const out = await callAction(dropCause(workshop, { id: item.id, gone: true }));
    if (!out.ok) return setMessage(out.message);
    router.refresh();
    toast("Deleted.", {
      action: {
        label: "Restore",
        onClick: async () => {
          await callAction(dropCause(workshop, { id: item.id, gone: false }));
          router.refresh();
        },
      },
    });
  };
  const mine = causes.filter((cause) => cause.defect === defect);
  return (
    <details className="unprinted sheet mt-8" open={mine.length > 0}>
      <summary className="cursor-pointer text-[19px] font-bold">Your own causes for {defectOf(defect)?.name}</summary>
      <ul>
        {mine.map((item) => (
          <li key={item.id} className="flex flex-wrap items-center gap-x-3 border-b border-line py-1">
            <strong>{item.words}</strong>
            {item.key ? <span className="text-soft">by “{keyOf(item.key).words}”</span> : <span className="text-soft">no evidence possible</span>}
            <button type="button" className="ml-auto min-h-[44px] underline" aria-label={`Delete: ${item.words}`} onClick={() => void drop(item)}>
              delete
            </button>
          </li>
        ))}
      </ul>
      <form
        ref={fields.form}
        className="mt-3 grid items-start gap-x-4 sm:grid-cols-[minmax(0,2fr)_minmax(0,2fr)_110px_110px_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <Field label="The cause, in your words" {...fields.bind("words")} />
        <Field
          label="Evidence"
          {...fields.bind("key")}
          options={[
            { value: "", label: "nothing recorded" },
            ...RECORD_KEY_NAMES.map((keyName) => ({
              value: keyName,
              label: [keyOf(keyName).words, unitOfKey(units, keyName).unit].filter(Boolean).join(", "),
            })),
          ]}
        />
        {key ? (
          <Field
            label="Where it"
            {...fields.bind("side")}
            options={SIDES.filter((side) => yesNo === (side.value === "yes" || side.value === "no")).map((side) => ({ ...side }))}
          />
        ) : (
          <span />
        )}
        {key && !yesNo ? <Field label="Figure" {...fields.bind("figure")} inputMode="decimal" unit={unitOfKey(units, key).unit} /> : <span />}
        <button type="submit" className="press mt-[27px]">
          Add cause
        </button>
      </form>
      <FormMessage>{message}</FormMessage>
    </details>
  );
}
