"use client";

import { good } from "@hearth/core";
import { type ReactNode, useEffect, useMemo, useState } from "react";
import { Field, type FieldRule, useFields } from "@/forms/fields";
import { whenRule } from "@/forms/rules";
import type { Batch, Instrument } from "@/log/use-batch";
import type { Entered } from "@/log/use-log";
import { FormMessage } from "@/ui/form-message";
import { isTyping, useKeydown } from "@/ui/keydown";
import { useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";

interface EntryFormProps<T> {
  batch: Batch;
  /** What the reading field is called; nothing where the step asks for no number. */
  label?: string;
  unit?: string | undefined;
  /** What the field takes, and how it says what it understood; nothing where the step asks for no number. */
  rule?: FieldRule<T>;
  tools?: Instrument[];
  toolLabel?: string;
  button: string;
  /** What is recorded. */
  entry: (value: T, tool: Instrument | undefined) => Entered;
  /** Hears which instrument is chosen. */
  onTool?: (tool: Instrument | undefined) => void;
  /** A question to be answered before it is recorded; null if nothing is odd. */
  ask?: (value: T) => string | null;
  children?: (at: { tool: Instrument | undefined; fill: (text: string) => void }) => ReactNode;
}

/** Digits go straight into the reading that waits, from anywhere on the page. */
function useDigits(form: React.RefObject<HTMLFormElement | null>): void {
  useKeydown((event) => {
    const field = form.current?.elements.namedItem("value");
    const elsewhere = isTyping(event.target) || (event.target as HTMLElement).closest("[role=dialog]");
    if (!(field instanceof HTMLInputElement) || elsewhere || event.ctrlKey || event.metaKey || event.altKey) return;
    if (/^[0-9]$/.test(event.key)) field.focus();
  });
}

/** The first weight of a batch has the focus at once, where there is a keyboard: on a phone the keys would cover what is asked. Later digits find the field by themselves. */
function useFirstField(form: React.RefObject<HTMLFormElement | null>, isFirst: boolean): void {
  useEffect(() => {
    if (!isFirst) return;
    const field = form.current?.elements.namedItem("value");
    const isFree = document.activeElement === document.body || document.activeElement === null;
    if (isFree && field instanceof HTMLInputElement && window.matchMedia("(pointer: fine)").matches) field.focus({ preventScroll: true });
  }, [form, isFirst]);
}

const FIELD_OF: Record<string, string> = { happenedAt: "at", mg: "value", n: "value", shown: "value", seconds: "value", instrumentId: "tool" };

/** One number, one instrument, one key: how most steps are recorded. What is odd is asked, not forbidden; a refusal returns what was typed. */
export function EntryForm<T>(props: EntryFormProps<T>) {
  const { batch, label, unit, tools = [], button, children } = props;
  const units = useUnits();
  // One instrument is kept to: the one used last is offered first.
  const lastTool = batch.events.findLast((event) => tools.some((tool) => tool.id === event.instrumentId))?.instrumentId ?? tools[0]?.id ?? "";
  const rules = useMemo(
    () => ({
      value: (props.rule ?? { initial: "", parse: () => good(null) }) as FieldRule<unknown>,
      tool: { initial: lastTool, parse: (text: string) => good(text || null) } as FieldRule<unknown>,
      at: whenRule(batch.now, units) as FieldRule<unknown>,
    }),
    [props.rule, lastTool, batch.now, units],
  );
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  const [asked, setAsked] = useState("");
  useDigits(fields.form);
  useFirstField(fields.form, batch.last === null && batch.events.length <= 1);
  const tool = tools.find((tool) => tool.id === fields.text("tool"));

  const { onTool } = props;
  useEffect(() => onTool?.(tool), [tool, onTool]);

  const submit = async (sure = false) => {
    const all = fields.check();
    if (!all) return;
    const question = sure ? null : (props.ask?.(all.value as T) ?? null);
    if (question) return setAsked(question);
    const entered = {
      ...props.entry(all.value as T, tool),
      happenedAt: all.at as string | null,
      instrumentId: tools.length > 0 ? (all.tool as string | null) : null,
    };
    const typed = { value: fields.text("value"), at: fields.text("at") };
    setAsked("");
    setMessage("");
    fields.fill({ value: "", at: "" });
    const refusal = await batch.record(entered);
    if (!refusal) return;
    fields.fill(typed);
    fields.refuse(
      Object.fromEntries(
        Object.entries(refusal.fields).flatMap(([name, messages]): [string, string[]][] => (FIELD_OF[name] ? [[FIELD_OF[name], messages]] : [])),
      ),
    );
    setMessage(refusal.message);
  };
  return (
    <form
      ref={fields.form}
      className="clear-both"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      {children?.({ tool, fill: (text) => fields.fill({ value: text }) })}
      <div
        className={`mt-2 grid grid-cols-1 items-start gap-x-3 sm:grid-cols-[minmax(0,190px)_auto] ${tools.length > 0 ? "xl:grid-cols-[minmax(0,175px)_auto_minmax(0,1fr)_84px]" : "xl:grid-cols-[minmax(0,190px)_auto_120px]"}`}
      >
        {label ? <Field label={label} {...fields.bind("value")} large inputMode="decimal" {...(unit ? { unit } : {})} /> : null}
        <button
          type="submit"
          className={`action-button !min-h-[64px] justify-self-start max-sm:mt-0 max-sm:mb-3 max-sm:justify-self-stretch ${label ? "mt-[27px]" : ""}`}
          data-next-step
        >
          {button}
        </button>
        <div
          className={`grid gap-x-3 ${tools.length > 0 ? "grid-cols-[minmax(0,1fr)_120px] sm:col-span-2 sm:max-w-[440px] xl:max-w-none xl:grid-cols-[minmax(0,1fr)_84px]" : "grid-cols-1 max-w-[160px]"}`}
        >
          {tools.length > 0 ? (
            <Field
              label={props.toolLabel ?? "Instrument"}
              {...fields.bind("tool")}
              options={[...tools.map((tool) => ({ value: tool.id, label: tool.name })), { value: "", label: "not recorded" }]}
            />
          ) : null}
          <Field label="When" {...fields.bind("at")} placeholder="now" />
        </div>
      </div>
      {asked ? (
        <div role="alertdialog" aria-label="Check this value" className={notice({ className: "mt-2" })}>
          <p className="font-semibold">▲ {asked}</p>
          <div className="mt-2 flex flex-wrap gap-3">
            <button type="button" className="press" onClick={() => void submit(true)}>
              Record anyway
            </button>
            <button type="button" className="press" onClick={() => setAsked("")}>
              Change it
            </button>
          </div>
        </div>
      ) : null}
      <FormMessage>{message}</FormMessage>
    </form>
  );
}
