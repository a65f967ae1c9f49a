"use client";

import { ROLES, type Role } from "@hearth/core";
import { useState } from "react";
import { ask } from "@/forms/ask";
import { Field, named, useFields } from "@/forms/fields";
import { usePlace } from "@/log/place";
import { saveOnShelf } from "@/server/shelf-save";
import { Link, useRouter } from "@/ui/address";
import { Aside, Screen } from "@/ui/margin";
import { Said } from "@/ui/said";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { askDevice, cutDevice, invite, letGo, setPin, setRole, takeAccess } from "./commands";

interface PersonShown {
  id: string;
  name: string;
  putAway: boolean;
  role: Role | null;
  hasAccount: boolean;
  hasPin: boolean;
  invitedUntil: string | null;
}
interface DeviceShown {
  id: string;
  name: string;
  role: Role;
  codeUntil: string | null;
  joinedAt: string | null;
  seenAt: string | null;
  person: string | null;
}

const MAY: Record<Role, string> = {
  owner: "everything, and who works here",
  maker: "everything but who works here",
  helper: "bench, rack, look-over and burn; no prices",
  reader: "sees all, changes nothing",
};

/** A sheet of paper that asks for one thing more before it is done. */
function PinForm({ person, onDone }: { person: PersonShown; onDone: () => void }) {
  const place = usePlace();
  const [rules] = useState(() => ({ pin: { initial: "", parse: (text: string) => ({ ok: true as const, value: text.trim() }) } }));
  const fields = useFields(rules);
  const [said, setSaid] = useState("");
  const keep = async (pin: string | null) => {
    const outcome = await ask(setPin(place, { personId: person.id, pin }));
    if (outcome.ok) return onDone();
    fields.refuse(outcome.fields);
    setSaid(outcome.message);
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
        Keep this PIN
      </button>
      {person.hasPin ? (
        <button type="button" className="press mb-6" onClick={() => void keep(null)}>
          Take the PIN away
        </button>
      ) : null}
      <Said>{said}</Said>
    </form>
  );
}

function Person({ person, open }: { person: PersonShown; open: boolean }) {
  const place = usePlace();
  const router = useRouter();
  const units = useUnits();
  const [said, setSaid] = useState("");
  const [link, setLink] = useState<string | null>(null);
  const [pin, setPinOpen] = useState(false);
  const [leaving, setLeaving] = useState(false);
  const role = person.role ?? "helper";
  const act = async <T,>(
    asked: Promise<{ ok: true; value: T } | { ok: false; message: string; fields: Record<string, string[]> }>,
    then?: (value: T) => void,
  ) => {
    const outcome = await ask(asked);
    setSaid(outcome.ok ? "" : outcome.message);
    if (outcome.ok) {
      then?.(outcome.value);
      router.refresh();
    }
  };
  return (
    <li className="border-b border-line py-3" data-person={person.name}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <strong className={`min-w-[130px] text-[19px] ${person.putAway ? "text-soft" : ""}`}>{person.name}</strong>
        {open ? (
          <>
            <label className="text-[15px]">
              <span className="sr-only">What {person.name} may do</span>
              <select className="entry !w-auto" value={role} onChange={(event) => void act(setRole(place, { personId: person.id, role: event.target.value }))}>
                {ROLES.toReversed().map((one) => (
                  <option key={one} value={one}>
                    {one}
                  </option>
                ))}
              </select>
            </label>
            <span className="min-w-[200px] flex-1 text-[15px] text-soft">
              {[
                person.hasAccount ? "has an account" : person.invitedUntil ? `asked in, until ${units.dayClock(person.invitedUntil)}` : null,
                person.hasPin ? "has a PIN" : null,
              ]
                .filter(Boolean)
                .join(", ") || "cannot come in yet"}
            </span>
            {person.hasAccount ? null : (
              <button type="button" className="press" onClick={() => void act(invite(place, { personId: person.id, role }), (value) => setLink(value.link))}>
                Make a link
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
          Has left
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
          Hand this link to {person.name}. It opens once, within a week, and is shown only now: <code className="mt-1 block break-all">{link}</code>
        </p>
      ) : null}
      {leaving ? (
        <div className="mt-2 flex flex-wrap gap-3">
          <button type="button" className="press" onClick={() => void act(takeAccess(place, { personId: person.id, forget: false }), () => setLeaving(false))}>
            Take all access, keep the name in the records
          </button>
          <button type="button" className="press" onClick={() => void act(takeAccess(place, { personId: person.id, forget: true }), () => setLeaving(false))}>
            Take the name out too: “a former helper”
          </button>
          <button type="button" className="press" onClick={() => setLeaving(false)}>
            Cancel
          </button>
        </div>
      ) : null}
      <Said>{said}</Said>
    </li>
  );
}

function AddPerson() {
  const place = usePlace();
  const router = useRouter();
  const [rules] = useState(() => ({ name: named("the person") }));
  const fields = useFields(rules);
  const [said, setSaid] = useState("");
  return (
    <form
      ref={fields.form}
      className="mt-3 flex flex-wrap items-end gap-3"
      onSubmit={async (event) => {
        event.preventDefault();
        const values = fields.check();
        if (!values) return;
        const outcome = await ask(saveOnShelf(place, { id: null, expectedVersion: null, kind: "person", values }));
        if (!outcome.ok) {
          fields.refuse({ name: [outcome.message] });
          return setSaid(outcome.message);
        }
        setSaid("");
        fields.reset();
        router.refresh();
      }}
    >
      <Field label="First name of somebody new" {...fields.bind("name")} />
      <button type="submit" className="press mb-6">
        Add
      </button>
      <Said>{said}</Said>
    </form>
  );
}

function AskDevice() {
  const place = usePlace();
  const router = useRouter();
  const units = useUnits();
  const [rules] = useState(() => ({
    name: named("the device", ""),
    role: { initial: "helper", parse: (text: string) => ({ ok: true as const, value: text }) },
  }));
  const fields = useFields(rules);
  const [said, setSaid] = useState("");
  const [shown, setShown] = useState<{ code: string; until: string; address: string; picture: string } | null>(null);
  if (shown)
    return (
      <div className="mt-3 flex flex-wrap items-center gap-6">
        <img src={`data:image/svg+xml,${encodeURIComponent(shown.picture)}`} alt="Code to be read by a phone" width={200} height={200} className="bg-white" />
        <div>
          <p>
            Let the phone read this, or open <code>{shown.address}</code> on it and type
          </p>
          <p className="figure my-2 text-[44px] leading-none" data-code="">
            {shown.code}
          </p>
          <p className="text-soft">It holds until {units.clock(shown.until)}, and once.</p>
          <button type="button" className="press mt-2" onClick={() => setShown(null)}>
            Done
          </button>
        </div>
      </div>
    );
  return (
    <form
      ref={fields.form}
      className="mt-2 flex flex-wrap items-end gap-3"
      onSubmit={async (event) => {
        event.preventDefault();
        const values = fields.check();
        if (!values) return;
        const outcome = await ask(askDevice(place, values));
        if (!outcome.ok) {
          fields.refuse(outcome.fields);
          return setSaid(outcome.message);
        }
        setSaid("");
        fields.reset();
        setShown(outcome.value);
        router.refresh();
      }}
    >
      <Field label="Name of the device" {...fields.bind("name")} placeholder="phone on the shelf" />
      <Field
        label="Most that is done on it"
        {...fields.bind("role")}
        options={[
          { value: "helper", label: "what helpers do: no prices" },
          { value: "maker", label: "what makers do" },
        ]}
      />
      <button type="submit" className={press({ className: "mb-6" })}>
        Show a code
      </button>
      <Said>{said}</Said>
    </form>
  );
}

/** Everything of the workshop, to take along; and letting it go. */
function Whole({ leavesAt }: { leavesAt: string | null }) {
  const place = usePlace();
  const router = useRouter();
  const units = useUnits();
  const [rules] = useState(() => ({ name: { initial: "", parse: (text: string) => ({ ok: true as const, value: text.trim() }) } }));
  const fields = useFields(rules);
  const [open, setOpen] = useState(false);
  const [said, setSaid] = useState("");
  const go = async (on: boolean) => {
    const outcome = await ask(letGo(place, { go: on, name: fields.text("name") }));
    if (!outcome.ok) {
      fields.refuse(outcome.fields);
      return setSaid(outcome.message);
    }
    setOpen(false);
    setSaid("");
    router.refresh();
  };
  return (
    <section className="mt-7 max-w-[980px]">
      <h2>The whole workshop</h2>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <a className="press" href={`/api/workshops/${place.workshopId}/whole`} download>
          Take everything along
        </a>
        {leavesAt ? (
          <button type="button" className="act" onClick={() => void go(false)}>
            Keep the workshop
          </button>
        ) : (
          <button type="button" className="press" aria-expanded={open} onClick={() => setOpen(!open)}>
            Delete the workshop…
          </button>
        )}
      </div>
      {leavesAt ? <p className="mt-2 font-semibold text-hot">▲ It is deleted on {units.dayClock(leavesAt)}, with every record in it.</p> : null}
      {open ? (
        <form
          ref={fields.form}
          className="sheet mt-3 max-w-[560px]"
          onSubmit={(event) => {
            event.preventDefault();
            void go(true);
          }}
        >
          <p>All formulas, records, orders and photographs of this workshop go. For thirty days it can be kept after all. Take everything along first.</p>
          <Field label="Name of the workshop" {...fields.bind("name")} hint="Typed, so that no slip does it." />
          <button type="submit" className="press">
            Delete it in thirty days
          </button>
          <Said>{said}</Said>
        </form>
      ) : null}
    </section>
  );
}

/** Who works here, on what, and who changed what. */
export function PeoplePage(props: { asks: boolean; leavesAt: string | null; people: PersonShown[]; devices: DeviceShown[] }) {
  const place = usePlace();
  const router = useRouter();
  const units = useUnits();
  return (
    <Screen
      title="People and devices"
      lead={props.asks ? "Who may come in, on what, and what each may do." : "Nobody signs in on this machine, and no other can reach it."}
      actions={
        <Link className="press" href="/people/trail">
          Who changed what
        </Link>
      }
      side={
        <>
          <Aside title="What each may do">
            <dl>
              {ROLES.toReversed().map((one) => (
                <div key={one}>
                  <dt className="font-semibold text-ink">{one}</dt>
                  <dd>{MAY[one]}</dd>
                </div>
              ))}
            </dl>
          </Aside>
          <Aside title="An account or a PIN">
            With an account somebody comes in from any browser. A PIN only says who stands at a device of the workshop, and opens nothing by itself.
          </Aside>
        </>
      }
    >
      {props.asks ? null : (
        <p className="sheet mb-5 max-w-[820px]">
          For a phone at the bench, a helper on Saturday, or another machine: start Hearth Jar with <code>./hearth start --listen 0.0.0.0</code>. From then on
          everybody says who it is.
        </p>
      )}
      <section className="max-w-[980px]">
        <h2>People</h2>
        <ul>
          {props.people.map((one) => (
            <Person key={one.id} person={one} open={props.asks} />
          ))}
        </ul>
        <AddPerson />
      </section>
      {props.asks ? (
        <section className="mt-7 max-w-[980px]">
          <h2>Devices of the workshop</h2>
          <ul>
            {props.devices.map((one) => (
              <li key={one.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-3" data-device={one.name}>
                <strong className="min-w-[170px] text-[19px]">{one.name}</strong>
                <span className="flex-1 text-[15px] text-soft">
                  {one.joinedAt ? `joined ${units.dayClock(one.joinedAt)}` : `its code holds until ${units.clock(one.codeUntil ?? "")}`}
                  {one.seenAt ? `, last seen ${units.dayClock(one.seenAt)}` : ""}
                  {one.person ? `, ${one.person} works on it` : ""}, as {one.role}
                </span>
                <button
                  type="button"
                  className="press"
                  onClick={async () => {
                    const outcome = await ask(cutDevice(place, { deviceId: one.id }));
                    toast(outcome.ok ? `${one.name} is cut off.` : outcome.message);
                    router.refresh();
                  }}
                >
                  {one.joinedAt ? "Cut it off" : "Withdraw the code"}
                </button>
              </li>
            ))}
          </ul>
          <h3 className="mt-4">Ask a phone or tablet in</h3>
          <AskDevice />
        </section>
      ) : null}
      <Whole leavesAt={props.leavesAt} />
    </Screen>
  );
}
