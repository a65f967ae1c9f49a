"use client";

import { bad, good, JAR_STATUS_WORDS, JAR_STATUSES, JAR_STATUSES_BY_HAND, jarStatusesOf, namedLines } from "@hearth/core";
import { useMemo, useState } from "react";
import { Field, type FieldRule, useFields } from "@/forms/fields";
import { countRule } from "@/forms/rules";
import type { Batch } from "@/log/use-batch";
import { FormMessage } from "@/ui/form-message";

const text = (most: number): FieldRule<string> => ({
  initial: "",
  parse: (raw) => good(raw.trim().slice(0, most)),
});
type ByHand = (typeof JAR_STATUSES_BY_HAND)[number];
const status = (initial: ByHand | "", why: string): FieldRule<ByHand> => ({ initial, parse: (raw) => (raw ? good(raw as ByHand) : bad("empty", why)) });

/** The status of each jar of a batch, and the form that changes it; all statuses add up to the jars filled. */
export function JarStatuses({ batch }: { batch: Batch }) {
  const { plan, state } = batch;
  const [message, setMessage] = useState("");
  const early = batch.times !== null && Date.parse(batch.now) < Date.parse(batch.times.testFrom);
  const rules = useMemo(
    () => ({
      product: { initial: plan.products[0]?.key ?? "", parse: (raw: string) => good(raw) } satisfies FieldRule<string>,
      jars: countRule({ least: 1, most: 100_000, name: "jars" }, "1"),
      from: status("rack", "Choose the present status."),
      to: status("", "Choose the new status."),
      whom: text(120),
      early: text(300),
    }),
    [plan.products],
  );
  const fields = useFields(rules);
  const sells = fields.text("to") === "sold";
  const put = async () => {
    const all = fields.check();
    if (!all) return;
    const typed = Object.fromEntries(Object.keys(rules).map((name) => [name, fields.text(name as keyof typeof rules)]));
    const { early: why, ...body } = all;
    // The next can be typed at once; what is refused comes back.
    setMessage("");
    fields.fill({ jars: "1", to: "", whom: "", early: "" });
    const refusal = await batch.record({ kind: "statusChanged", payload: { ...body, ...(why ? { early: why } : {}) } });
    if (!refusal) return;
    fields.fill(typed);
    if (Object.keys(refusal.fields).some((name) => name in rules)) fields.refuse(refusal.fields);
    else setMessage(refusal.message);
  };
  return (
    <section className="sheet" aria-label="Jar status">
      <h2>Jar status</h2>
      <ul className="mt-1">
        {namedLines(plan.products).map((line) => {
          const { counts, filled, stopped } = jarStatusesOf(plan, state, line.key);
          return (
            <li key={line.key} className="border-b border-line py-2">
              <span className="font-semibold">
                {filled} × {line.name}:
              </span>{" "}
              {JAR_STATUSES.filter((name) => counts[name] > 0).map((name, index) => (
                <span key={name}>
                  {index > 0 ? ", " : ""}
                  <span className="figure text-[20px]">{counts[name]}</span> {JAR_STATUS_WORDS[name]}
                </span>
              ))}
              {stopped > 0 ? <span className="text-safety"> · ⚠ {stopped} must not be sold</span> : null}
            </li>
          );
        })}
      </ul>
      <form
        ref={fields.form}
        className="mt-3"
        onSubmit={(event) => {
          event.preventDefault();
          void put();
        }}
      >
        <div className="grid grid-cols-2 items-start gap-x-4">
          {plan.products.length > 1 ? (
            <Field label="Of which" {...fields.bind("product")} options={namedLines(plan.products).map((line) => ({ value: line.key, label: line.name }))} />
          ) : null}
          <Field label="How many jars" {...fields.bind("jars")} inputMode="numeric" />
          <Field label="From" {...fields.bind("from")} options={JAR_STATUSES_BY_HAND.map((item) => ({ value: item, label: JAR_STATUS_WORDS[item] }))} />
          <Field
            label="To"
            {...fields.bind("to")}
            options={[{ value: "", label: "choose" }, ...JAR_STATUSES_BY_HAND.map((item) => ({ value: item, label: JAR_STATUS_WORDS[item] }))]}
          />
          <Field label="Recipient or place" {...fields.bind("whom")} />
        </div>
        {early && sells ? <Field label="Reason for selling before the minimum cure" {...fields.bind("early")} /> : null}
        <FormMessage>{message}</FormMessage>
        <button type="submit" className="press !min-h-[56px]">
          Save
        </button>
      </form>
    </section>
  );
}
