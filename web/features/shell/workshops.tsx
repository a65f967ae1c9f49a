"use client";

import { currencyDecimals, currencyFor, good, LOCALE_FORMATS, localeFor, parseMoney, parseRooms, roomsOf, writeRooms } from "@hearth/core";
import { useEffect, useMemo, useState } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { Chooser } from "@/forms/chooser";
import { choiceRule, Field, type FieldRule, named, orNothing, untouched, useFields } from "@/forms/fields";
import type { Choice } from "@/forms/matches";
import { forgetPages } from "@/offline/offline";
import { chooseWorkshop } from "@/server/workshops/choice-commands";
import { changeWorkshop, makeWorkshop } from "@/server/workshops/workshop-commands";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { LettersToggle } from "@/ui/letters-toggle";
import { Aside, PageLayout } from "@/ui/side-notes";
import { press } from "@/ui/variants";
import { ImportWorkshop } from "./import-workshop";

export interface WorkshopShown {
  id: string;
  name: string;
  massUnit: "g" | "oz";
  temperatureUnit: "C" | "F";
  lengthUnit: "mm" | "in";
  pounds: boolean;
  locale: string;
  timeZone: string;
  currency: string;
  handsCost: number | null;
  heatCost: number | null;
  rooms: string;
  version: number;
}

/** The systems of measure as they are used together; any mix can be chosen under it. */
const SYSTEMS = {
  metric: { weights: "g", temperatureUnit: "C", lengthUnit: "mm" },
  us: { weights: "oz", temperatureUnit: "F", lengthUnit: "in" },
} as const;

const zones = (): Choice[] => ["UTC", ...Intl.supportedValuesOf("timeZone")].map((zone) => ({ value: zone, name: zone.replaceAll("_", " ") }));

function currencies(): Choice[] {
  const names = new Intl.DisplayNames("en", { type: "currency" });
  return Intl.supportedValuesOf("currency").map((code) => ({ value: code, name: `${code} ${names.of(code) ?? ""}` }));
}

/** Returns the rules of a workshop's fields; of a new one also who works there. `zone` is the time zone of the server. */
function rulesOf(workshop: WorkshopShown | null, zone: string): Record<string, FieldRule<unknown>> {
  const cost = (value: number | null): FieldRule<unknown> => {
    const currency = workshop?.currency ?? "EUR";
    const initial = value === null ? "" : String(value / 10 ** currencyDecimals(currency));
    return untouched<number | null>(orNothing({ initial, parse: (text: string) => parseMoney(text, currency) }), value) as FieldRule<unknown>;
  };
  return {
    name: named("the workshop", workshop?.name) as FieldRule<unknown>,
    weights: choiceRule(workshop ? (workshop.massUnit === "g" ? "g" : workshop.pounds ? "lb oz" : "oz") : "g"),
    temperatureUnit: choiceRule(workshop?.temperatureUnit ?? "C"),
    lengthUnit: choiceRule(workshop?.lengthUnit ?? "mm"),
    locale: choiceRule(workshop?.locale ?? "en-GB"),
    timeZone: choiceRule(workshop?.timeZone ?? zone),
    currency: choiceRule(workshop?.currency ?? "EUR"),
    handsCost: cost(workshop?.handsCost ?? null),
    heatCost: cost(workshop?.heatCost ?? null),
    ...(workshop
      ? {
          rooms: {
            initial: writeRooms(roomsOf(workshop.rooms)),
            parse: (text: string) => {
              const read = parseRooms(text);
              return read.ok ? good(writeRooms(read.value)) : read;
            },
          } as FieldRule<unknown>,
        }
      : {}),
    ...(workshop ? {} : { person: named("the person who works here") as FieldRule<unknown> }),
  };
}
type WorkshopFields = ReturnType<typeof useFields<Record<string, FieldRule<unknown>>>>;

/** In which measures it is worked: a whole system at once, or each for itself. */
function Measures({ fields }: { fields: WorkshopFields }) {
  return (
    <>
      <fieldset className="flex flex-wrap items-center gap-2 sm:col-span-2">
        <legend className="mb-1 text-[15px] font-semibold">Measures</legend>
        {(["metric", "us"] as const).map((item) => (
          <button
            key={item}
            type="button"
            className={press({ className: Object.entries(SYSTEMS[item]).every(([key, value]) => fields.text(key) === value) ? "!bg-ink !text-sheet" : "" })}
            onClick={() => {
              for (const [key, value] of Object.entries(SYSTEMS[item])) fields.set(key, value);
            }}
          >
            {item === "metric" ? "Grams, °C, millimeters" : "Ounces, °F, inches"}
          </button>
        ))}
        <span className="text-[15px] text-soft">or choose each:</span>
      </fieldset>
      <Field
        label="Weights"
        {...fields.bind("weights")}
        options={[
          { value: "g", label: "grams" },
          { value: "oz", label: "ounces" },
          { value: "lb oz", label: "pounds and ounces" },
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
      <Field
        label="Lengths"
        {...fields.bind("lengthUnit")}
        options={[
          { value: "mm", label: "millimeters" },
          { value: "in", label: "inches and sixteenths" },
        ]}
      />
    </>
  );
}

/** What an hour costs, and the rooms in which candles are smelled: of a workshop that is there already. */
function CostsAndRooms({ fields, currency }: { fields: WorkshopFields; currency: string }) {
  return (
    <>
      <Field label="Labor cost per hour" unit={currency} {...fields.bind("handsCost")} hint="Leave empty to leave labor out of the cost." />
      <Field label="Energy cost per hour" unit={currency} {...fields.bind("heatCost")} hint="For one burner or melter." />
      <Field
        label="Rooms of the house"
        {...fields.bind("rooms")}
        lines={3}
        hint="Where candles are scored for scent. One room on each line, with its size: living room, large. A large room needs a stronger throw."
      />
    </>
  );
}

/** Time zone and currency; a new workshop takes them, with its measures, from the browser that makes it. */
function Where({ workshop, zone, fields }: { workshop: WorkshopShown | null; zone: string; fields: WorkshopFields }) {
  const [zoneList, setZoneList] = useState<Choice[]>([{ value: workshop?.timeZone ?? zone, name: (workshop?.timeZone ?? zone).replaceAll("_", " ") }]);
  const [currencyList, setCurrencyList] = useState<Choice[]>([{ value: workshop?.currency ?? "EUR", name: workshop?.currency ?? "EUR" }]);
  const { set } = fields;
  // A new workshop begins in the zone and the manner of the browser that makes it.
  useEffect(() => {
    setZoneList(zones());
    setCurrencyList(currencies());
    if (workshop) return;
    const here = Intl.DateTimeFormat().resolvedOptions().timeZone || zone;
    set("timeZone", here);
    const locale = localeFor(navigator.languages);
    set("locale", locale);
    set("currency", currencyFor(locale, here));
    if (locale === "en-US") for (const [key, value] of Object.entries(SYSTEMS.us)) set(key, value);
  }, []);
  return (
    <>
      <Chooser
        label="Time zone"
        value={fields.text("timeZone")}
        options={zoneList}
        onValue={(value) => set("timeZone", value)}
        error={fields.bind("timeZone").error}
      />
      <Chooser
        label="Currency"
        value={fields.text("currency")}
        options={currencyList}
        onValue={(value) => set("currency", value)}
        error={fields.bind("currency").error}
        hint="For costs and prices."
      />
    </>
  );
}

/** Makes a workshop, or changes one. */
function WorkshopForm({ workshop, zone }: { workshop: WorkshopShown | null; zone: string }) {
  const router = useRouter();
  const rules = useMemo(() => rulesOf(workshop, zone), [workshop, zone]);
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  const [freshId] = useState(() => v7());
  const submit = async () => {
    const values = fields.check() as Record<string, unknown> | null;
    if (!values) return;
    const { weights, ...rest } = values;
    const wanted = { ...rest, massUnit: weights === "g" ? "g" : "oz", pounds: weights === "lb oz" };
    const outcome = await callAction<unknown>(
      workshop ? changeWorkshop({ ...wanted, id: workshop.id, expectedVersion: workshop.version }) : makeWorkshop({ ...wanted, id: freshId }),
    );
    if (!outcome.ok) {
      fields.refuse(outcome.fields);
      return setMessage(outcome.message);
    }
    forgetPages();
    router.push(`/w/${workshop?.id ?? freshId}`);
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
      {workshop ? <span /> : <Field label="Your first name" {...fields.bind("person")} />}
      <Measures fields={fields} />
      <Field
        label="Date and time format"
        {...fields.bind("locale")}
        options={Object.entries(LOCALE_FORMATS).map(([value, { name }]) => ({ value, label: name }))}
      />
      <Where workshop={workshop} zone={zone} fields={fields} />
      {workshop ? <CostsAndRooms fields={fields} currency={workshop.currency} /> : null}
      <div className="self-center">
        <button type="submit" className={workshop ? "press" : "action-button"}>
          {workshop ? "Save" : "Create workshop"}
        </button>
        <FormMessage>{message}</FormMessage>
      </div>
    </form>
  );
}

/** The workshops kept here: make one, choose one, set its units. */
export function Workshops({ workshops, zone }: { workshops: WorkshopShown[]; zone: string }) {
  const router = useRouter();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <PageLayout
      title="Workshops"
      lead="Each has its own shelf, formulas and records."
      side={
        <>
          <Aside title="Units">
            Everything is shown in these units. Every field also accepts other units: “1 lb 4 oz”, “1 1/2 lb”, “185F”, “3 1/16 in”, “12,5”.
          </Aside>
          <LettersToggle />
        </>
      }
    >
      <ul>
        {workshops.map((workshop) => (
          <li key={workshop.id} data-workshop={workshop.id} className="border-b border-line py-3">
            <div className="flex flex-wrap items-center gap-4">
              <strong className="text-[19px]">{workshop.name}</strong>
              <span className="flex-1 text-soft">
                {workshop.massUnit === "g" ? "grams" : "ounces"}, °{workshop.temperatureUnit}, {workshop.timeZone}
              </span>
              <button
                type="button"
                className="press"
                onClick={async () => {
                  await chooseWorkshop(workshop.id);
                  forgetPages();
                  router.push(`/w/${workshop.id}`);
                }}
              >
                Work in {workshop.name}
              </button>
              <button type="button" className="press" onClick={() => setOpen(open === workshop.id ? null : workshop.id)} aria-label={`Change ${workshop.name}`}>
                Change
              </button>
            </div>
            {open === workshop.id ? (
              <div className="sheet mt-3">
                <WorkshopForm workshop={workshop} zone={zone} />
              </div>
            ) : null}
          </li>
        ))}
      </ul>
      <section className="sheet mt-6 max-w-[820px]">
        <h2 className="mb-2">A new, empty workshop</h2>
        <WorkshopForm workshop={null} zone={zone} />
      </section>
      <section className="sheet mt-6 max-w-[820px]">
        <h2 className="mb-2">Import a workshop</h2>
        <ImportWorkshop />
      </section>
    </PageLayout>
  );
}
