"use client";

import { dayAt, type PlanningSettings } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { callAction } from "@/forms/call-action";
import { Field, type FieldRule, useFields } from "@/forms/fields";
import { countRule, massRule, percentRule } from "@/forms/rules";
import { useWorkshop } from "@/log/workshop";
import { savePlanning } from "@/server/planning/commands";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { toast } from "@/ui/toast";
import { useNow, useUnits } from "@/ui/units";
import { daysRule, hoursRule } from "./day-rules";

const WEEKDAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];

/** What the workshop plans with: hands, burners, hours and days off. */
export function PlanningSettingsForm({ settings, version }: { settings: PlanningSettings; version: number }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const today = dayAt(useNow(60_000), units.zone);
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const rules = useMemo(
    () =>
      ({
        hands: countRule({ least: 1, most: 9, name: "people" }, String(settings.hands)),
        burners: countRule({ least: 1, most: 20, name: "burners" }, String(settings.burners)),
        pitchers: countRule({ least: 1, most: 40, name: "pitchers" }, String(settings.pitchers)),
        pitcherMg: massRule(units, { initial: units.typed.about(settings.pitcherMg) }),
        sparePpm: percentRule({ least: 0, most: 50, name: "the extra" }, String(settings.sparePpm / 10_000)),
        table: countRule({ least: 1, most: 20_000, name: "places" }, String(settings.table)),
        aheadDays: countRule({ least: 0, most: 60, name: "days" }, String(settings.aheadDays)),
        gatherDays: countRule({ least: 0, most: 120, name: "days" }, String(settings.gatherDays)),
        sun: hoursRule(settings.sun),
        daysOff: daysRule(settings.daysOff, today, units),
        ...Object.fromEntries(settings.hours.map((hour, index) => [`hours${index}`, hoursRule(hour)])),
      }) as Record<string, FieldRule<unknown>>,
    [settings, today, units],
  );
  const fields = useFields(rules);
  const save = () => {
    const all = fields.check();
    if (!all) return;
    // Each once, as a command is sent: the hours of the week as one list.
    const hours = settings.hours.map((_, index) => all[`hours${index}`]);
    const rest = Object.fromEntries(Object.entries(all).filter(([name]) => !name.startsWith("hours")));
    start(async () => {
      const out = await callAction(savePlanning(workshop, { settings: { ...rest, hours }, version }));
      if (!out.ok) return setMessage(out.message);
      setMessage("");
      router.refresh();
      toast("Saved. The plan uses it.");
    });
  };
  return (
    <details className="unprinted sheet mt-8">
      <summary className="cursor-pointer text-[19px] font-bold">Capacity: people, burners, hours, days off</summary>
      <form
        ref={fields.form}
        className="mt-3"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-4">
          <Field label="People" {...fields.bind("hands")} inputMode="numeric" />
          <Field label="Burners" {...fields.bind("burners")} inputMode="numeric" />
          <Field label="Pitchers" {...fields.bind("pitchers")} inputMode="numeric" />
          <Field label="A pitcher holds" unit={units.mass} {...fields.bind("pitcherMg")} inputMode="decimal" hint="Or your melter, if it holds less." />
          <Field label="Extra" unit="%" {...fields.bind("sparePpm")} inputMode="decimal" hint="For pitcher loss and the top-up." />
          <Field label="Table space, in jars" {...fields.bind("table")} inputMode="numeric" hint="Jars that can set at once." />
          <Field label="Finishing days" {...fields.bind("aheadDays")} inputMode="numeric" hint="To trim, label and ship after the cure." />
          <Field label="Combine within days" {...fields.bind("gatherDays")} inputMode="numeric" hint="Demand this close together shares a pot." />
        </div>
        <fieldset className="mt-2">
          <legend className="font-semibold">Working hours</legend>
          <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-4">
            {WEEKDAYS.map((name, index) => (
              <Field key={name} label={name} {...fields.bind(`hours${index}`)} placeholder="nobody works" />
            ))}
            <Field label="Sun on the table" {...fields.bind("sun")} placeholder="none, or 7:30–10:00" />
          </div>
        </fieldset>
        <Field label="Days off" {...fields.bind("daysOff")} placeholder={`${units.onDate(today)}, …`} />
        <FormMessage>{message}</FormMessage>
        <button type="submit" className="action-button" disabled={busy}>
          Save capacity
        </button>
      </form>
    </details>
  );
}
