"use client";

import { bad, good } from "@hearth/core";
import { type ReactNode, useMemo, useState } from "react";
import { callAction } from "@/forms/call-action";
import { Field, type FieldRule, useFields } from "@/forms/fields";
import { FormMessage } from "@/ui/form-message";

export interface AuthField {
  name: string;
  label: string;
  type?: "text" | "password" | "email";
  /** What the browser's own keeper of passwords takes it for. */
  autoComplete?: string;
  initial?: string;
  hint?: string;
  inputMode?: "numeric";
  optional?: boolean;
}
type Answer = { ok: true; value: Record<string, unknown> } | { ok: false; message: string; fields: Record<string, string[]> };

/** Runs an authentication command on the server; a rejection is an answer too. */
export const callAuth = (command: string, given: object): Promise<Answer> =>
  callAction(
    (async (): Promise<Answer> => {
      const answer = await fetch(`/api/auth/${command}`, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(given) });
      const read = (await answer.json()) as { error?: { message: string; fields: Record<string, string[]> } };
      return answer.ok ? { ok: true, value: read } : { ok: false, message: read.error?.message ?? "This was refused.", fields: read.error?.fields ?? {} };
    })(),
  );

/** An authentication form: what is typed stays typed when it is refused, and the reason stands at its field. */
export function AuthForm(props: {
  command: string;
  fields: AuthField[];
  /** Sent along with what is typed. */
  more?: object;
  button: string;
  plain?: boolean;
  children?: ReactNode;
  onDone: (answer: Record<string, unknown>) => void;
}) {
  const { command, more, button, onDone } = props;
  const names = JSON.stringify(props.fields);
  const rules = useMemo((): Record<string, FieldRule<string>> => {
    const all = JSON.parse(names) as AuthField[];
    return Object.fromEntries(
      all.map((authField) => [
        authField.name,
        {
          initial: authField.initial ?? "",
          parse: (text: string) => (text.trim() === "" && !authField.optional ? bad("empty", `Give ${authField.label.toLowerCase()}.`) : good(text)),
        },
      ]),
    );
  }, [names]);
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  const [busy, setBusy] = useState(false);
  return (
    <form
      ref={fields.form}
      method="post"
      className="grid max-w-[460px] gap-1"
      onSubmit={async (event) => {
        event.preventDefault();
        const values = fields.check();
        if (!values || busy) return;
        setBusy(true);
        const answer = await callAuth(command, { ...values, ...more });
        setBusy(false);
        if (answer.ok) return onDone(answer.value);
        fields.refuse(answer.fields);
        setMessage(answer.message);
      }}
    >
      {props.fields.map(({ name, label, type, autoComplete, hint, inputMode }) => (
        <Field
          key={name}
          label={label}
          {...fields.bind(name)}
          {...(type ? { type } : {})}
          {...(autoComplete ? { autoComplete } : {})}
          {...(hint ? { hint } : {})}
          {...(inputMode ? { inputMode } : {})}
        />
      ))}
      {props.children}
      <div>
        <button type="submit" className={props.plain ? "press" : "action-button"} disabled={busy}>
          {button}
        </button>
        <FormMessage>{message}</FormMessage>
      </div>
    </form>
  );
}
