"use client";

import type { Parsed } from "@hearth/core";
import { type ReactNode, useCallback, useId, useMemo, useRef, useState } from "react";

export interface FieldRule<T> {
  initial: string;
  parse: (text: string) => Parsed<T>;
}
type Rules = Record<string, FieldRule<unknown>>;
type Values<R extends Rules> = { [K in keyof R]: R[K] extends FieldRule<infer T> ? T : never };

/**
 * The fields of a form as they were typed, what they mean, and what is wrong with them. Nothing typed is ever changed or
 * dropped; an error shows once the field was left or the form was sent.
 */
export function useFields<R extends Rules>(rules: R) {
  const [text, setText] = useState<Record<string, string>>(() => Object.fromEntries(Object.entries(rules).map(([name, rule]) => [name, rule.initial])));
  const [seen, setSeen] = useState<Record<string, boolean>>({});
  const [told, setTold] = useState<Record<string, string>>({});
  const form = useRef<HTMLFormElement>(null);

  const read = useMemo(() => {
    const values: Record<string, unknown> = {};
    const errors: Record<string, string> = {};
    for (const [name, rule] of Object.entries(rules)) {
      const parsed = rule.parse(text[name] ?? rule.initial);
      if (parsed.ok) values[name] = parsed.value;
      else errors[name] = parsed.message;
    }
    return { values: values as Partial<Values<R>>, errors };
  }, [rules, text]);

  const focusFirst = useCallback((names: string[]) => {
    requestAnimationFrame(() => {
      const field = names.map((name) => form.current?.elements.namedItem(name)).find((one) => one instanceof HTMLElement);
      (field as HTMLElement | undefined)?.focus();
    });
  }, []);

  return {
    form,
    values: read.values,
    text: (name: keyof R & string) => text[name] ?? rules[name]?.initial ?? "",
    set: (name: keyof R & string, value: string) => {
      setText((old) => ({ ...old, [name]: value }));
      setTold((old) => ({ ...old, [name]: "" }));
    },
    fill: (all: Partial<Record<keyof R & string, string>>) => {
      setText((old) => ({ ...old, ...(all as Record<string, string>) }));
      setSeen((old) => ({ ...old, ...Object.fromEntries(Object.keys(all).map((name) => [name, false])) }));
      setTold({});
    },
    /** What `Field` needs to show one of them. */
    bind: (name: keyof R & string) => ({
      name,
      value: text[name] ?? rules[name]?.initial ?? "",
      onValue: (value: string) => {
        setText((old) => ({ ...old, [name]: value }));
        setTold((old) => ({ ...old, [name]: "" }));
      },
      onLeave: () => setSeen((old) => ({ ...old, [name]: true })),
      error: told[name] || (seen[name] ? (read.errors[name] ?? "") : ""),
    }),
    /** All values, or null with the first fault shown and focused. */
    check: (): Values<R> | null => {
      const wrong = Object.keys(read.errors);
      if (wrong.length === 0) return read.values as Values<R>;
      setSeen(Object.fromEntries(Object.keys(rules).map((name) => [name, true])));
      focusFirst(wrong);
      return null;
    },
    /** Shows what the server refused, at its field. */
    refuse: (fields: Record<string, string[]>) => {
      setTold(Object.fromEntries(Object.entries(fields).map(([name, messages]) => [name, messages[0] ?? ""])));
      focusFirst(Object.keys(fields));
    },
    reset: () => {
      setText(Object.fromEntries(Object.entries(rules).map(([name, rule]) => [name, rule.initial])));
      setSeen({});
      setTold({});
    },
  };
}

interface FieldProps {
  label: string;
  name: string;
  value: string;
  onValue: (value: string) => void;
  onLeave: () => void;
  error: string;
  hint?: ReactNode;
  unit?: string;
  /** One of a few: shown as a list to choose from. */
  options?: { value: string; label: string }[];
  lines?: number;
  large?: boolean;
  placeholder?: string;
  inputMode?: "decimal" | "numeric" | "text";
  autoFocus?: boolean;
}

export function Field(props: FieldProps) {
  const id = useId();
  const { label, name, value, onValue, onLeave, error, hint, unit, options, lines, large, placeholder, inputMode, autoFocus } = props;
  const common = {
    id,
    name,
    value,
    onBlur: onLeave,
    "aria-invalid": error !== "",
    "aria-describedby": `${id}-said`,
    className: `entry ${large ? "figure !min-h-[64px] text-[34px]" : ""}`,
  };
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-[15px] font-semibold">
        {label}
        {unit ? <span className="font-normal text-soft"> · {unit}</span> : null}
      </label>
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
          type="text"
          autoComplete="off"
          inputMode={inputMode}
          placeholder={placeholder}
          autoFocus={autoFocus}
          onChange={(event) => onValue(event.target.value)}
        />
      )}
      <p id={`${id}-said`} className={`mt-1 text-[14px] ${error ? "font-semibold text-hot" : "text-soft"}`} role={error ? "alert" : undefined}>
        {error ? `▲ ${error}` : hint}
      </p>
    </div>
  );
}

/** A rule for text that is taken as it is. */
export const words = (initial = "", most = 2_000): FieldRule<string> => ({
  initial,
  parse: (text) =>
    text.length > most ? { ok: false, message: `At most ${most} letters fit here; this has ${text.length}.` } : { ok: true, value: text.trim() },
});

/** A rule for a name, which must be there. */
export const named = (what: string, initial = ""): FieldRule<string> => ({
  initial,
  parse: (text) =>
    text.trim() === ""
      ? { ok: false, message: `Give ${what} a name.` }
      : text.length > 120
        ? { ok: false, message: "A name has at most 120 letters." }
        : { ok: true, value: text.trim() },
});

/** Keeps a stored value exactly where its text is left as it was shown: what is shown is rounded to the reader's units. */
export const untouched = <T,>(rule: FieldRule<T>, value: T): FieldRule<T> => ({
  initial: rule.initial,
  parse: (text) => (text === rule.initial ? { ok: true, value } : rule.parse(text)),
});

/** Lets a field stand empty. */
export const orNothing = <T,>(rule: FieldRule<T>): FieldRule<T | null> => ({
  initial: rule.initial,
  parse: (text) => (text.trim() === "" ? { ok: true, value: null } : rule.parse(text)),
});
