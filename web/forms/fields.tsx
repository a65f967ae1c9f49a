"use client";

import { askWhetherThousands, bad, cleanText, good, type LocaleFormat, type Parsed } from "@hearth/core";
import { type KeyboardEvent, memo, type ReactNode, startTransition, useCallback, useId, useMemo, useOptimistic, useRef, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import { useUnits } from "@/ui/units";
import { WhatIs } from "@/ui/word";
import { wordAt } from "@/ui/word-labels";

export interface FieldRule<T> {
  initial: string;
  parse: (text: string) => Parsed<T>;
  /** Says what was understood, where that is not what was typed: "14 days" for 14. */
  echo?(value: T): string;
}
type Rules = Record<string, FieldRule<unknown>>;
type Values<R extends Rules> = { [K in keyof R]: R[K] extends FieldRule<infer T> ? T : never };

const same = (a: string, b: string) => a.replace(/\s+/g, "").toLowerCase() === b.replace(/\s+/g, "").toLowerCase();

/** Returns whether a value is a number, or is made of some. */
const hasNumber = (value: unknown): boolean =>
  typeof value === "number" || (typeof value === "object" && value !== null && Object.values(value).some((item) => hasNumber(item)));

/** Returns what was read, or a question where a figure that was typed could be a thousandfold, as the place writes numbers. */
const asked = (text: string, isTyped: boolean, read: Parsed<unknown>, manner: Pick<LocaleFormat, "decimal" | "group">): Parsed<unknown> =>
  (isTyped && read.ok && hasNumber(read.value) ? askWhetherThousands(text, manner) : null) ?? read;

/**
 * The fields of a form as they were typed, what they mean, and what is wrong with them. The form library keeps the text,
 * what was touched and what the server refused; core reads it. Nothing typed is ever changed or dropped; an error shows
 * once the field was left or the form was sent.
 */
export function useFields<R extends Rules>(rules: R) {
  const initials = () => Object.fromEntries(Object.entries(rules).map(([name, rule]) => [name, rule.initial]));
  const { control, setValue, getValues, setError, clearErrors, reset, formState } = useForm<Record<string, string>>({
    defaultValues: initials(),
    mode: "onTouched",
  });
  const { errors: refusals, touchedFields } = formState;
  const typed = useWatch({ control }) as Record<string, string | undefined>;
  const form = useRef<HTMLFormElement>(null);
  const { manner } = useUnits();

  const read = useMemo(() => {
    const values: Record<string, unknown> = {};
    const errors: Record<string, string> = {};
    const echoes: Record<string, string> = {};
    for (const [name, rule] of Object.entries(rules)) {
      const raw = typed[name] ?? rule.initial;
      const text = raw === rule.initial ? raw : cleanText(raw);
      const parsed = asked(text, raw !== rule.initial, rule.parse(text), manner);
      if (parsed.ok) {
        values[name] = parsed.value;
        const echo = text.trim() !== "" && rule.echo ? rule.echo(parsed.value as never) : "";
        if (echo && !same(echo, text)) echoes[name] = echo;
      } else errors[name] = parsed.message;
    }
    return { values: values as Partial<Values<R>>, errors, echoes };
  }, [rules, typed, manner]);

  const initial = useCallback((name: string) => rules[name]?.initial ?? "", [rules]);
  const focusFirst = useCallback((names: string[]) => {
    requestAnimationFrame(() => {
      const field = names.map((name) => form.current?.elements.namedItem(name)).find((item) => item instanceof HTMLElement);
      (field as HTMLElement | undefined)?.focus();
    });
  }, []);
  const touch = (name: string, yes = true) => setValue(name, getValues(name) ?? rules[name]?.initial ?? "", { shouldTouch: yes });
  const put = (name: string, value: string) => {
    setValue(name, value, { shouldDirty: true });
    clearErrors(name);
  };

  const latest = useRef({ put, touch });
  latest.current = { put, touch };
  const handlers = useRef(new Map<string, Pick<FieldProps, "onValue" | "onLeave">>());
  /** The same functions for a name as long as the form stands, so that a field is drawn again only where it changes. */
  const handlersOf = (name: string) => {
    const there = handlers.current.get(name);
    if (there) return there;
    const made = { onValue: (value: string) => latest.current.put(name, value), onLeave: () => latest.current.touch(name) };
    handlers.current.set(name, made);
    return made;
  };

  return {
    form,
    values: read.values,
    /** The texts as they were typed. */
    typed,
    /** Returns whether these texts and values are of what is typed now: a `DeferredField` shows a text before they hold it. */
    isCurrent: () => Object.keys(rules).every((name) => getValues(name) === typed[name]),
    /** What a field begins with. */
    initial,
    text: (name: keyof R & string) => typed[name] ?? rules[name]?.initial ?? "",
    set: (name: keyof R & string, value: string) => put(name, value),
    fill: (all: Partial<Record<keyof R & string, string>>) => {
      const next = { ...initials(), ...getValues(), ...(all as Record<string, string>) };
      const kept = Object.keys(touchedFields).filter((name) => !(name in all));
      reset(next, { keepDefaultValues: true });
      for (const name of kept) touch(name);
    },
    /** What `Field` needs to show one of them. */
    bind: (name: keyof R & string) => ({
      name,
      value: typed[name] ?? rules[name]?.initial ?? "",
      ...handlersOf(name),
      error: (refusals[name]?.message as string | undefined) || (touchedFields[name] ? (read.errors[name] ?? "") : ""),
      echo: read.echoes[name] ?? "",
    }),
    /** All values, or null with the first fault shown and focused. */
    check: (): Values<R> | null => {
      const wrong = Object.keys(read.errors);
      if (wrong.length === 0) return read.values as Values<R>;
      for (const name of Object.keys(rules)) touch(name);
      focusFirst(wrong);
      return null;
    },
    /** Shows what the server refused, at its field. */
    refuse: (fields: Record<string, string[]>) => {
      for (const [name, messages] of Object.entries(fields)) setError(name, { message: messages[0] ?? "" });
      focusFirst(Object.keys(fields));
    },
    reset: () => reset(initials()),
  };
}

interface FieldProps {
  label: string;
  /** What tells it from others of the same label, for who does not see where it stands. */
  of?: string;
  name: string;
  value: string;
  onValue: (value: string) => void;
  onLeave: () => void;
  error: string;
  /** What was understood of what is typed. */
  echo?: string;
  hint?: ReactNode;
  unit?: string;
  /** One of a few: shown as a list to choose from. */
  options?: { value: string; label: string }[];
  lines?: number;
  large?: boolean;
  placeholder?: string;
  inputMode?: "decimal" | "numeric" | "text";
  type?: "text" | "password" | "email";
  autoComplete?: string;
  autoFocus?: boolean;
  /** Stands in a narrow column: its word is explained by the key alone. */
  narrow?: boolean;
}

/** An error that quotes an empty field, or asks for what it holds: the field is asked for by its name instead. */
const ASKS_FOR_TEXT = /^(“”|Type a )/;

const withoutSpaces = (text: string): string => text.replace(/\s/g, "").toLowerCase();

/** Returns whether what was understood says more than the field itself does, with its unit: "= 8 %" says nothing at a field with 8 in percent. */
export const isNews = (echo: string, value: string, unit = ""): boolean =>
  echo !== "" && withoutSpaces(echo) !== withoutSpaces(value) && !withoutSpaces(value + unit).startsWith(withoutSpaces(echo));

export const Field = memo(function Field(props: FieldProps) {
  const units = useUnits();
  const id = useId();
  const { label, name, value, onValue, onLeave, error, echo = "", hint, unit, options, lines, large, placeholder, inputMode, autoFocus } = props;
  const word = wordAt(label);
  const [explained, setExplained] = useState(false);
  const common = {
    id,
    name,
    // A word is explained without leaving the field it stands at.
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key !== "F1" || !word) return;
      event.preventDefault();
      setExplained(true);
    },
    value,
    onBlur: onLeave,
    "aria-invalid": error !== "",
    "aria-describedby": `${id}-said`,
    className: `entry ${large ? "figure !min-h-[64px] text-[34px]" : ""}`,
  };
  return (
    <div>
      <div className="mb-1 flex items-start gap-2">
        <label
          htmlFor={id}
          id={`${id}-label`}
          className={`block min-w-0 font-semibold break-words hyphens-auto ${props.narrow ? "text-[13px] tracking-[-0.02em]" : "text-[15px]"}`}
        >
          {label}
          {props.of ? <span className="sr-only"> {props.of}</span> : null}
          {unit ? <span className="font-normal text-soft"> · {unit}</span> : null}
        </label>
        {word ? <WhatIs word={word} of={`${id}-label`} byKey hidden={props.narrow ?? false} open={explained} onOpen={setExplained} /> : null}
      </div>
      {options ? (
        <select {...common} onChange={(event) => onValue(event.target.value)}>
          {options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.label}
            </option>
          ))}
        </select>
      ) : lines ? (
        <textarea {...common} rows={lines} onChange={(event) => onValue(event.target.value)} />
      ) : (
        <input
          {...common}
          type={props.type ?? "text"}
          autoComplete={props.autoComplete ?? "off"}
          inputMode={inputMode}
          placeholder={placeholder}
          autoFocus={autoFocus}
          onChange={(event) => onValue(event.target.value)}
        />
      )}
      <p id={`${id}-said`} className={`mt-1 text-[14px] ${error ? "font-semibold text-hot" : "text-soft"}`} role={error ? "alert" : undefined}>
        {error ? (
          `▲ ${value.trim() === "" && ASKS_FOR_TEXT.test(error) ? `Fill in “${label}”.` : units.inUnits(error)}`
        ) : isNews(echo, value, unit) ? (
          <span className="font-semibold text-ink">= {echo}</span>
        ) : (
          hint
        )}
      </p>
    </div>
  );
});

/** As `Field`, for a form from which much follows: shows what is typed at once, and lets the form take it as a transition. */
export const DeferredField = memo(function DeferredField(props: FieldProps) {
  const { value, onValue } = props;
  const [shown, show] = useOptimistic(value);
  return (
    <Field
      {...props}
      value={shown}
      onValue={(text) =>
        startTransition(() => {
          show(text);
          onValue(text);
        })
      }
    />
  );
});

/** Returns the rule of a field whose text is taken as typed. */
export const words = (initial = "", most = 2_000): FieldRule<string> => ({
  initial,
  parse: (text) => (text.length > most ? bad("too-long", `At most ${most} letters fit here; this has ${text.length}.`) : good(text.trim())),
});

/** Returns the rule of a field whose text is its value: one of a list. */
export const choiceRule = (initial = "") => ({ initial, parse: (text: string) => good(text) });

/** Returns the rule of a name, which is required. */
export const named = (what: string, initial = ""): FieldRule<string> => ({
  initial,
  parse: (text) =>
    text.trim() === "" ? bad("empty", `Enter a name for ${what}.`) : text.length > 120 ? bad("too-long", "A name has at most 120 letters.") : good(text.trim()),
});

/** Keeps a stored value exactly where its text is left as it was shown: what is shown is rounded to the reader's units. */
export const untouched = <T,>(rule: FieldRule<T>, value: T): FieldRule<T> => ({
  ...rule,
  parse: (text) => (text === rule.initial ? { ok: true, value } : rule.parse(text)),
});

/** Returns a rule that also accepts an empty field, as null. */
export const orNothing = <T,>({ echo, ...rule }: FieldRule<T>): FieldRule<T | null> => ({
  initial: rule.initial,
  ...(echo ? { echo: (value: T | null) => (value === null ? "" : echo(value)) } : {}),
  parse: (text) => (text.trim() === "" ? { ok: true, value: null } : rule.parse(text)),
});
