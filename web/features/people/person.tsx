"use client";

import { ROLES, type Role } from "@hearth/core";
import { useState } from "react";
import { callAction } from "@/forms/call-action";
import { Field, named, useFields, words } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { saveOnShelf } from "@/server/inventory/shelf-save";
import { invite, setPin, setRole, takeAccess } from "@/server/people/commands";
import type { PersonShown } from "@/server/workshops/people";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";

/** A PIN is typed, kept, or taken away. */
function PinForm({ person, onDone }: { person: PersonShown; onDone: () => void }) {
  const workshop = useWorkshop();
  const [rules] = useState(() => ({ pin: words() }));
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  const keep = async (pin: string | null) => {
    const outcome = await callAction(setPin(workshop, { personId: person.id, pin }));
    if (outcome.ok) return onDone();
    fields.refuse(outcome.fields);
    setMessage(outcome.message);
  };
  return (
    <form
      ref={fields.form}
      className="mt-2 flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void keep(fields.text("pin"));
      }}
    >
      <Field label={`PIN of ${person.name}`} {...fields.bind("pin")} inputMode="numeric" hint="Four to eight digits, for the workshop's devices." />
      <button type="submit" className="press mb-6">
        Save PIN
      </button>
      {person.hasPin ? (
        <button type="button" className="press mb-6" onClick={() => void keep(null)}>
          Delete PIN
        </button>
      ) : null}
      <FormMessage>{message}</FormMessage>
    </form>
  );
}

/** One person of the workshop: the role, and the ways of signing in. */
export function Person({ person, open }: { person: PersonShown; open: boolean }) {
  const workshop = useWorkshop();
  const router = useRouter();
  const units = useUnits();
  const [message, setMessage] = useState("");
  const [link, setLink] = useState<string | null>(null);
  const [pin, setPinOpen] = useState(false);
  const [leaving, setLeaving] = useState(false);
  // What was chosen holds at once, also for a link that is made before it is kept; until the record says something else.
  const [chosen, setChosen] = useState<{ role: Role; over: PersonShown["role"] } | null>(null);
  const role = (chosen && chosen.over === person.role ? chosen.role : person.role) ?? "helper";
  const run = async <T,>(
    asked: Promise<{ ok: true; value: T } | { ok: false; message: string; fields: Record<string, string[]> }>,
    then?: (value: T) => void,
  ) => {
    const outcome = await callAction(asked);
    setMessage(outcome.ok ? "" : outcome.message);
    if (outcome.ok) {
      then?.(outcome.value);
      router.refresh();
    } else setChosen(null);
  };
  return (
    <li className="border-b border-line py-3" data-person={person.name}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <strong className={`min-w-[130px] text-[19px] ${person.archived ? "text-soft" : ""}`}>{person.name}</strong>
        {open ? (
          <>
            <label className="text-[15px]">
              <span className="sr-only">What {person.name} may do</span>
              <select
                className="entry !w-auto"
                value={role}
                onChange={({ target }) => {
                  setChosen({ role: target.value as Role, over: person.role });
                  void run(setRole(workshop, { personId: person.id, role: target.value }));
                }}
              >
                {ROLES.toReversed().map((role) => (
                  <option key={role} value={role}>
                    {role}
                  </option>
                ))}
              </select>
            </label>
            <span className="min-w-[200px] flex-1 text-[15px] text-soft">
              {[
                person.hasAccount ? "has an account" : person.invitedUntil ? `invited until ${units.dayClock(person.invitedUntil)}` : null,
                person.hasPin ? "has a PIN" : null,
              ]
                .filter(Boolean)
                .join(", ") || "no access yet"}
            </span>
            {person.hasAccount ? null : (
              <button type="button" className="press" onClick={() => void run(invite(workshop, { personId: person.id, role }), (value) => setLink(value.link))}>
                Create invitation link
              </button>
            )}
            <button type="button" className="press" aria-expanded={pin} onClick={() => setPinOpen(!pin)}>
              {person.hasPin ? "Another PIN" : "Give a PIN"}
            </button>
          </>
        ) : (
          <span className="flex-1" />
        )}
        <button type="button" className="press" aria-expanded={leaving} onClick={() => setLeaving(!leaving)}>
          Remove person
        </button>
      </div>
      {pin ? (
        <PinForm
          person={person}
          onDone={() => {
            setPinOpen(false);
            router.refresh();
          }}
        />
      ) : null}
      {link ? (
        <p className="mt-2 text-[15px]">
          Send this link to {person.name}. It works once, within a week, and is shown only now: <code className="mt-1 block break-all">{link}</code>
        </p>
      ) : null}
      {leaving ? (
        <div className="mt-2 flex flex-wrap gap-3">
          <button
            type="button"
            className="press"
            onClick={() => void run(takeAccess(workshop, { personId: person.id, forget: false }), () => setLeaving(false))}
          >
            Revoke access, keep the name in the records
          </button>
          <button
            type="button"
            className="press"
            onClick={() => void run(takeAccess(workshop, { personId: person.id, forget: true }), () => setLeaving(false))}
          >
            Revoke access and remove the name: “a former helper”
          </button>
          <button type="button" className="press" onClick={() => setLeaving(false)}>
            Cancel
          </button>
        </div>
      ) : null}
      <FormMessage>{message}</FormMessage>
    </li>
  );
}

/** The form that adds a person. */
export function AddPerson() {
  const workshop = useWorkshop();
  const router = useRouter();
  const [rules] = useState(() => ({ name: named("the person") }));
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  return (
    <form
      ref={fields.form}
      className="mt-3 flex flex-wrap items-end gap-3"
      onSubmit={async (event) => {
        event.preventDefault();
        const values = fields.check();
        if (!values) return;
        const outcome = await callAction(saveOnShelf(workshop, { id: null, expectedVersion: null, kind: "person", values }));
        if (!outcome.ok) {
          fields.refuse({ name: [outcome.message] });
          return setMessage(outcome.message);
        }
        setMessage("");
        fields.reset();
        router.refresh();
      }}
    >
      <Field label="First name of a new person" {...fields.bind("name")} />
      <button type="submit" className="press mb-6">
        Add
      </button>
      <FormMessage>{message}</FormMessage>
    </form>
  );
}
