"use client";

import { useState } from "react";
import { callAction } from "@/forms/call-action";
import { Field, named, useFields } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { askDevice, cutDevice } from "@/server/people/commands";
import type { DeviceShown } from "@/server/workshops/people";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";

/** A phone is asked in: its code, large, and as a picture. */
function AskDevice() {
  const workshop = useWorkshop();
  const router = useRouter();
  const units = useUnits();
  const [rules] = useState(() => ({
    name: named("the device", ""),
    role: { initial: "helper", parse: (text: string) => ({ ok: true as const, value: text }) },
  }));
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  const [shown, setShown] = useState<{ code: string; until: string; address: string; picture: string } | null>(null);
  if (shown)
    return (
      <div className="mt-3 flex flex-wrap items-center gap-6">
        <img src={`data:image/svg+xml,${encodeURIComponent(shown.picture)}`} alt="Code for a phone" width={200} height={200} className="bg-white" />
        <div>
          <p>
            Scan this with the phone, or open <code>{shown.address}</code> on it and type
          </p>
          <p className="figure my-2 text-[44px] leading-none" data-code="">
            {shown.code}
          </p>
          <p className="text-soft">It is valid until {units.clock(shown.until)}, for one use.</p>
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
        const outcome = await callAction(askDevice(workshop, values));
        if (!outcome.ok) {
          fields.refuse(outcome.fields);
          return setMessage(outcome.message);
        }
        setMessage("");
        fields.reset();
        setShown(outcome.value);
        router.refresh();
      }}
    >
      <Field label="Name of the device" {...fields.bind("name")} placeholder="phone on the shelf" />
      <Field
        label="Maximum access"
        {...fields.bind("role")}
        options={[
          { value: "helper", label: "helper: no prices" },
          { value: "editor", label: "editor" },
        ]}
      />
      <button type="submit" className={press({ className: "mb-6" })}>
        Show code
      </button>
      <FormMessage>{message}</FormMessage>
    </form>
  );
}

/** The phones and tablets of the workshop. */
export function Devices({ devices }: { devices: DeviceShown[] }) {
  const workshop = useWorkshop();
  const router = useRouter();
  const units = useUnits();
  const [asked, setAsked] = useState<string | null>(null);
  const revoke = async (device: DeviceShown) => {
    const outcome = await callAction(cutDevice(workshop, { deviceId: device.id }));
    setAsked(null);
    toast(outcome.ok ? `Access of ${device.name} is revoked.` : outcome.message);
    router.refresh();
  };
  return (
    <section className="mt-7 max-w-[980px]">
      <h2>Devices of the workshop</h2>
      <ul>
        {devices.map((device) => (
          <li key={device.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-3" data-device={device.name}>
            <strong className="min-w-[170px] text-[19px]">{device.name}</strong>
            <span className="flex-1 text-[15px] text-soft">
              {device.joinedAt ? `joined ${units.dayClock(device.joinedAt)}` : `its code is valid until ${units.clock(device.codeUntil ?? "")}`}
              {device.seenAt ? `, last seen ${units.dayClock(device.seenAt)}` : ""}
              {device.person ? `, ${device.person} works on it` : ""}, as {device.role}
            </span>
            <button
              type="button"
              className="press"
              aria-expanded={device.joinedAt ? asked === device.id : undefined}
              onClick={() => (device.joinedAt ? setAsked(asked === device.id ? null : device.id) : void revoke(device))}
            >
              {device.joinedAt ? "Revoke access" : "Cancel code"}
            </button>
            {asked === device.id ? (
              <div className="w-full" role="group" aria-label={`Revoke access of ${device.name}`}>
                <p>
                  {device.seenAt ? `It was last seen ${units.dayClock(device.seenAt)}.` : "It was not seen since it joined."} When it can be reached, everything
                  on it is deleted, and entries that were not sent are lost. If you can, let it send them first.
                </p>
                <div className="mt-2 flex gap-3">
                  <button type="button" className="action-button" onClick={() => void revoke(device)}>
                    Revoke access of {device.name}
                  </button>
                  <button type="button" className="press" onClick={() => setAsked(null)}>
                    Cancel
                  </button>
                </div>
              </div>
            ) : null}
          </li>
        ))}
      </ul>
      <h3 className="mt-4">Add a phone or tablet</h3>
      <AskDevice />
    </section>
  );
}
