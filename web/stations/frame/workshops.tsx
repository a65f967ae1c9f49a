"use client";

import { good } from "@hearth/core";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { Field, type FieldRule, named, useFields } from "@/forms/fields";
import { Aside, Screen } from "@/ui/margin";
import { chooseWorkshop } from "./choose";
import { changeWorkshop, makeWorkshop } from "./workshop-commands";

export interface WorkshopShown {
  id: string;
  name: string;
  massUnit: "g" | "oz";
  temperatureUnit: "C" | "F";
  timeZone: string;
  currency: string;
  version: number;
}

const keep = (initial: string): FieldRule<string> => ({ initial, parse: good });

function WorkshopForm({ workshop, zone }: { workshop: WorkshopShown | null; zone: string }) {
  const router = useRouter();
  const rules = useMemo(
    () => ({
      name: named("the workshop", workshop?.name),
      massUnit: keep(workshop?.massUnit ?? "g"),
      temperatureUnit: keep(workshop?.temperatureUnit ?? "C"),
      timeZone: keep(workshop?.timeZone ?? zone),
      currency: keep(workshop?.currency ?? "EUR"),
      ...(workshop ? {} : { person: named("the person who works here") }),
    }),
    [workshop, zone],
  );
  const fields = useFields(rules as Record<string, FieldRule<string>>);
  const [said, setSaid] = useState("");
  const submit = async () => {
    const values = fields.check();
    if (!values) return;
    const outcome = await (workshop ? changeWorkshop({ ...values, id: workshop.id, expectedVersion: workshop.version }) : makeWorkshop(values)).catch(
      () => null,
    );
    if (!outcome) return setSaid("The program cannot be reached just now. Nothing you typed is lost: try again.");
    if (!outcome.ok) {
      fields.refuse(outcome.fields);
      return setSaid(outcome.message);
    }
    router.push("/");
    router.refresh();
  };
  return (
    <form
      ref={fields.form}
      className="grid gap-x-5 gap-y-1 sm:grid-cols-2"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <Field label="Name of the workshop" {...fields.bind("name")} />
      {workshop ? null : <Field label="Who works here (first name)" {...fields.bind("person")} />}
      <Field
        label="Weights"
        {...fields.bind("massUnit")}
        options={[
          { value: "g", label: "grams" },
          { value: "oz", label: "ounces" },
        ]}
      />
      <Field
        label="Temperatures"
        {...fields.bind("temperatureUnit")}
        options={[
          { value: "C", label: "°C" },
          { value: "F", label: "°F" },
        ]}
      />
      <Field label="Time zone" {...fields.bind("timeZone")} hint="Like Europe/Lisbon." />
      <Field label="Currency" {...fields.bind("currency")} hint="Three letters, like EUR: what lots cost is kept in it." />
      <div className="self-center">
        <button type="submit" className={workshop ? "press" : "act"}>
          {workshop ? "Save" : "Make this workshop"}
        </button>
        {said ? (
          <p role="alert" className="mt-1 font-semibold text-hot">
            ▲ {said}
          </p>
        ) : null}
      </div>
    </form>
  );
}

/** The workshops kept here: make one, choose one, set its units. */
export function Workshops({ workshops, zone }: { workshops: WorkshopShown[]; zone: string }) {
  const router = useRouter();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <Screen
      title="Workshops"
      lead="Each keeps its own shelf, formulas and records."
      side={<Aside title="Units">Weights and temperatures are shown in these units. Any field takes any unit all the same: “1 lb 4 oz”, “185F”, “12,5”.</Aside>}
    >
      <ul>
        {workshops.map((one) => (
          <li key={one.id} className="border-b border-line py-3">
            <div className="flex flex-wrap items-center gap-4">
              <strong className="text-[19px]">{one.name}</strong>
              <span className="flex-1 text-soft">
                {one.massUnit === "g" ? "grams" : "ounces"}, °{one.temperatureUnit}, {one.timeZone}
              </span>
              <button
                type="button"
                className="press"
                onClick={async () => {
                  await chooseWorkshop(one.id);
                  router.push("/");
                  router.refresh();
                }}
              >
                Work in {one.name}
              </button>
              <button type="button" className="press" onClick={() => setOpen(open === one.id ? null : one.id)} aria-label={`Change ${one.name}`}>
                Change
              </button>
            </div>
            {open === one.id ? (
              <div className="sheet mt-3">
                <WorkshopForm workshop={one} zone={zone} />
              </div>
            ) : null}
          </li>
        ))}
      </ul>
      <section className="sheet mt-6 max-w-[820px]">
        <h2 className="mb-2">A new, empty workshop</h2>
        <WorkshopForm workshop={null} zone={zone} />
      </section>
    </Screen>
  );
}
