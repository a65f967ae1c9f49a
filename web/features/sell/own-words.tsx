"use client";

import { useMemo, useState, useTransition } from "react";
import { callAction } from "@/forms/call-action";
import { Field, useFields, words } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { saveLabelling } from "@/server/sales/commands";
import type { LabelSettings } from "@/server/sales/label-settings";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { toast } from "@/ui/toast";

/** The workshop's own words on labels. */
export function OwnWords({ settings, version }: { settings: LabelSettings; version: number }) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const rules = useMemo(
    () => ({
      maker: words(settings.maker, 300),
      address: words(settings.address, 300),
      phone: words(settings.phone, 60),
      own: words(settings.own.join("\n"), 1_600),
      base: words(settings.base, 200),
    }),
    [settings],
  );
  const fields = useFields(rules);
  const save = () => {
    const all = fields.check();
    if (!all) return;
    start(async () => {
      const own = all.own
        .split("\n")
        .map((line) => line.trim())
        .filter(Boolean);
      const outcome = await callAction(
        saveLabelling(workshop, { version, settings: { ...settings, maker: all.maker, address: all.address, phone: all.phone, own, base: all.base } }),
      );
      if (!outcome.ok) {
        fields.refuse(Object.fromEntries(Object.entries(outcome.fields).map(([name, messages]) => [name.split(".")[1] ?? name, messages])));
        return setMessage(outcome.message);
      }
      setMessage("");
      toast("Saved. The labels use these words.");
      router.refresh();
    });
  };
  return (
    <form
      ref={fields.form}
      className="sheet"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <h2 className="mb-2">Your own words</h2>
      <Field label="Maker" {...fields.bind("maker")} lines={2} hint="Your name on every label." />
      <Field label="Address" {...fields.bind("address")} lines={2} hint="For the hazard label, which must name the maker." />
      <Field label="Phone" {...fields.bind("phone")} />
      <Field label="More warnings, one on each line" {...fields.bind("own")} lines={2} />
      <Field
        label="Where your pages for buyers are hosted"
        {...fields.bind("base")}
        placeholder="https://"
        hint="If empty, the code opens this program, which only this machine can reach."
      />
      <button type="submit" className="press" disabled={busy}>
        Save words
      </button>
      <FormMessage>{message}</FormMessage>
    </form>
  );
}
