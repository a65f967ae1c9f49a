"use client";

import { bad, good, MG_PER, parseMass, parseNumber, parsePercent, parseTemperature, writeDifference, writeNumber, writePercent } from "@hearth/core";
import { useRouter } from "next/navigation";
import { type ReactNode, useMemo, useState, useTransition } from "react";
import { Field, type FieldRule, named, orNothing, useFields, words } from "@/ui/fields";
import { commonScale, JarSection } from "@/ui/jar-section";
import { Caution, Screen } from "@/ui/margin";
import { useUnits, type Writers } from "@/ui/units";
import { saveOnShelf } from "./commands";
import type { Shelf } from "./read";

type Kind = "wax" | "fragrance" | "vessel" | "instrument" | "person";

const FAMILIES = ["soy", "coconut", "paraffin", "paraffin–soy", "beeswax", "palm", "gel", "blend"];
const MATERIALS = ["heat-safe glass", "metal", "ceramic", "not known"];
const choices = (values: string[]) => values.map((value) => ({ value, label: value }));
const choice = (initial: string): FieldRule<string> => ({ initial, parse: good });
const yes = (initial: boolean): FieldRule<boolean> => ({ initial: initial ? "yes" : "no", parse: (text) => good(text === "yes") });

/** A length in millimetres, or in inches where it says so. Gives micrometres. NIST SP 811: 1 in = 25.4 mm. */
const millimetres = (initial: number | null): FieldRule<number> => ({
  initial: initial === null ? "" : writeNumber(initial / 1_000, 1),
  parse: (text) => {
    const inches = /^(.*?)\s*(in|inch|inches|")$/i.exec(text.trim());
    const number = parseNumber((inches?.[1] ?? text).replace(/\s*mm$/i, "").replace(/\s*cm$/i, ""));
    if (!number.ok) return number;
    const mm = number.value * (inches ? 25.4 : /cm$/i.test(text.trim()) ? 10 : 1);
    return mm < 5 || mm > 1_000 ? bad(`${writeNumber(mm, 1)} mm is no vessel: it lies between 5 and 1000 mm.`) : good(Math.round(mm * 1_000));
  },
});

function rulesFor(kind: Kind, row: Record<string, unknown> | null, units: Writers): Record<string, FieldRule<unknown>> {
  const text = (name: string, other = "") => String(row?.[name] ?? other);
  const number = (name: string) => (typeof row?.[name] === "number" ? (row[name] as number) : null);
  const load = (name: string) =>
    orNothing<number>({
      initial: number(name) === null ? "" : writePercent(number(name) ?? 0, 3),
      parse: (typed) => parsePercent(typed, { least: 0.1, most: 100, name: "a largest load" }),
    });
  const mass = (name: string): FieldRule<number> => ({
    initial: number(name) === null ? "" : units.g(number(name) ?? 0),
    parse: (typed) => parseMass(typed, { unit: units.mass, most: 100_000_000 }),
  });
  switch (kind) {
    case "wax":
      return { name: named("the wax", text("name")), family: choice(text("family", "soy")), maxLoadPpm: load("maxLoadPpm"), remarks: words(text("remarks")) };
    case "fragrance":
      return {
        name: named("the fragrance", text("name")),
        kind: choice(text("kind", "fragrance")),
        maxLoadPpm: load("maxLoadPpm"),
        flashPoint: orNothing<number>({
          initial: number("flashPoint") === null ? "" : units.t(number("flashPoint") ?? 0),
          parse: (typed) => parseTemperature(typed, units.temperature),
        }),
        remarks: words(text("remarks")),
      };
    case "vessel":
      return {
        name: named("the vessel", text("name")),
        material: choice(text("material", "heat-safe glass")),
        statedFillMg: mass("statedFillMg"),
        workingFillMg: mass("workingFillMg"),
        soldByWeight: yes(row?.soldByWeight === true),
        innerTopUm: millimetres(number("innerTopUm")),
        innerBottomUm: millimetres(number("innerBottomUm")),
        heightUm: millimetres(number("heightUm")),
      };
    case "instrument":
      return {
        name: named("the instrument", text("name")),
        kind: choice(text("kind", "probe")),
        correction: {
          initial: number("correction") ? writeNumber(((number("correction") ?? 0) / 100) * (units.temperature === "F" ? 1.8 : 1), 2) : "0",
          parse: (typed) => {
            const read = parseNumber(typed.replace(/^\+/, "").replace(/\s*°?\s*[cf]$/i, ""));
            if (!read.ok) return read;
            const centi = Math.round((read.value * 100) / (/f$/i.test(typed.trim()) || (units.temperature === "F" && !/c$/i.test(typed.trim())) ? 1.8 : 1));
            return Math.abs(centi) > 2_000
              ? bad(`A correction of ${writeDifference(centi, units.temperature)} is more than any thermometer worth keeping needs.`)
              : good(centi);
          },
        } satisfies FieldRule<number>,
        resolutionUg: orNothing<number>({
          initial: number("resolutionUg") === null ? "" : `${writeNumber((number("resolutionUg") ?? 0) / 1_000 / MG_PER[units.mass], 4)} ${units.mass}`,
          parse: (typed) => {
            const read = parseMass(typed, { unit: units.mass, least: 1, most: 100_000 });
            if (!read.ok) return read;
            const exact = /oz/i.test(typed) || (units.mass === "oz" && !/g/i.test(typed)) ? parseNumber(typed.replace(/[^\d.,/]/g, "")) : null;
            return good(exact?.ok ? Math.round(exact.value * MG_PER.oz * 1_000) : read.value * 1_000);
          },
        }),
      };
    case "person":
      return { name: named("the person", text("name")) };
  }
}

function labelsFor(kind: Kind, units: Writers): Record<string, { label: string; hint?: string; unit?: string; options?: { value: string; label: string }[] }> {
  const t = units.temperature === "C" ? "85 C" : "185 F";
  const g = units.mass === "g" ? "180 g" : "6.5 oz";
  return {
    name: { label: kind === "person" ? "First name" : "Name" },
    family: { label: "Family", options: choices(FAMILIES) },
    material: { label: "Material", options: choices(MATERIALS) },
    kind:
      kind === "instrument"
        ? {
            label: "Kind",
            options: [
              { value: "probe", label: "probe thermometer" },
              { value: "infrared", label: "infrared thermometer" },
              { value: "glass", label: "glass thermometer" },
              { value: "scale", label: "scale" },
            ],
          }
        : { label: "Kind", options: choices(["fragrance", "essential oil"]) },
    maxLoadPpm: { label: "Largest load", unit: "% of the wax", hint: "From the supplier's sheet. Leave empty where it is not known." },
    flashPoint: { label: "Flash point", hint: `Like ${t}. Leave empty where it is not known.` },
    remarks: { label: "Remarks" },
    statedFillMg: { label: "Stated fill", hint: `The weight it is sold with, like ${g}.` },
    workingFillMg: { label: "Working fill", hint: "What you really pour." },
    soldByWeight: {
      label: "Sold by weight",
      options: [
        { value: "no", label: "no" },
        { value: "yes", label: "yes: never below the stated fill" },
      ],
    },
    innerTopUm: { label: "Inner diameter at the rim", unit: "mm" },
    innerBottomUm: { label: "Inner diameter at the bottom", unit: "mm" },
    heightUm: { label: "Inner height", unit: "mm" },
    correction: { label: "Correction", unit: `°${units.temperature}`, hint: "Added to what it shows, like −0.5. 0 for a scale." },
    resolutionUg: { label: "One step of the scale", hint: `Only for scales, like ${units.mass === "g" ? "1 g" : "0.1 oz"}.` },
  };
}

function ShelfForm({ kind, row, onDone }: { kind: Kind; row: ({ id: string; version?: number } & Record<string, unknown>) | null; onDone: () => void }) {
  const units = useUnits();
  const router = useRouter();
  const rules = useMemo(() => rulesFor(kind, row, units), [kind, row, units]);
  const fields = useFields(rules);
  const labels = labelsFor(kind, units);
  const [said, setSaid] = useState("");
  const [busy, start] = useTransition();
  const save = () => {
    const values = fields.check();
    if (!values) return;
    start(async () => {
      const outcome = await saveOnShelf({ kind, id: row?.id ?? null, expectedVersion: row?.version ?? null, values }).catch(() => null);
      if (!outcome) return setSaid("The program cannot be reached just now. Nothing you typed is lost: try again.");
      if (!outcome.ok) {
        setSaid(outcome.message);
        fields.refuse(Object.fromEntries(Object.entries(outcome.fields).map(([name, messages]) => [name.replace("values.", ""), messages])));
        return;
      }
      router.refresh();
      onDone();
    });
  };
  return (
    <form
      ref={fields.form}
      className="sheet mt-3"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
      onKeyDown={(event) => event.key === "Escape" && onDone()}
    >
      <div className="grid gap-x-5 gap-y-2 sm:grid-cols-2">
        {Object.keys(rules).map((name, index) => (
          <Field key={name} {...fields.bind(name)} {...(labels[name] ?? { label: name })} autoFocus={index === 0} />
        ))}
      </div>
      {said ? (
        <p role="alert" className="mt-2 font-semibold text-hot">
          {said}
        </p>
      ) : null}
      <div className="mt-3 flex gap-3">
        <button type="submit" className="act" disabled={busy}>
          {row ? "Save the change" : "Put it on the shelf"}
        </button>
        <button type="button" className="press" onClick={onDone}>
          Leave it
        </button>
      </div>
    </form>
  );
}

function Section({
  title,
  kind,
  rows,
  children,
  teach,
}: {
  title: string;
  kind: Kind;
  rows: ({ id: string; name: string; version?: number } & Record<string, unknown>)[];
  children: (row: never) => ReactNode;
  teach: string;
}) {
  const [open, setOpen] = useState<string | null>(null);
  return (
    <section className="mb-7" aria-label={title}>
      <div className="flex items-center justify-between border-b-[3px] border-ink pb-1">
        <h2>{title}</h2>
        <button type="button" className="press" onClick={() => setOpen("new")}>
          Add {kind === "instrument" ? "an instrument" : `a ${kind}`}
        </button>
      </div>
      {open === "new" ? <ShelfForm kind={kind} row={null} onDone={() => setOpen(null)} /> : null}
      {rows.length === 0 && open !== "new" ? <p className="py-3 text-soft">{teach}</p> : null}
      <ul>
        {rows.map((row) => (
          <li key={row.id} className="border-b border-line py-2">
            <div className="flex items-center gap-4">
              <div className="min-w-0 flex-1">{children(row as never)}</div>
              <button type="button" className="press" onClick={() => setOpen(open === row.id ? null : row.id)} aria-label={`Change ${row.name}`}>
                Change
              </button>
            </div>
            {open === row.id ? <ShelfForm kind={kind} row={row} onDone={() => setOpen(null)} /> : null}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What stands on the shelf: materials, vessels, instruments, and who works here. */
export function ShelfView({ shelf }: { shelf: Shelf }) {
  const units = useUnits();
  const scale = commonScale(shelf.vessels, 96);
  const known = (ppm: number | null) => (ppm === null ? "largest load not known" : `takes up to ${writePercent(ppm)} of the wax`);
  return (
    <Screen
      title="Shelf"
      lead="What a formula and a batch can be made of."
      side={
        <>
          <Caution title="Vessels">
            Heat-safe glass, metal or ceramic only. A cracked jar is thrown away. Old glazed or painted vessels may hold lead: have them tested, or do not use
            them.
          </Caution>
          <Caution title="Not in a candle">
            No crayons, glitter or dried plants near the wick, nor anything that burns. The supplier's sheet and your local rules come first.
          </Caution>
        </>
      }
    >
      <Section
        title="Waxes"
        kind="wax"
        rows={shelf.waxes}
        teach="No wax yet. Add the wax you melt, with the largest load from its supplier's sheet: amounts are checked against it."
      >
        {(wax: Shelf["waxes"][number]) => (
          <>
            <strong>{wax.name}</strong>{" "}
            <span className="text-soft">
              {wax.family}, {known(wax.maxLoadPpm)}
            </span>
            {wax.remarks ? <div className="text-[14px] text-soft">{wax.remarks}</div> : null}
          </>
        )}
      </Section>
      <Section
        title="Fragrances"
        kind="fragrance"
        rows={shelf.fragrances}
        teach="No fragrance yet. Add one, with its flash point and largest load where you know them."
      >
        {(oil: Shelf["fragrances"][number]) => (
          <>
            <strong>{oil.name}</strong>{" "}
            <span className="text-soft">
              {oil.kind}, {known(oil.maxLoadPpm)}
              {oil.flashPoint === null ? "" : `, flash point ${units.t(oil.flashPoint)}`}
            </span>
          </>
        )}
      </Section>
      <Section
        title="Vessels"
        kind="vessel"
        rows={shelf.vessels}
        teach="No vessel yet. Add a jar with its fill weight and inner measures: it is drawn to scale and filled on paper before you pour."
      >
        {(vessel: Shelf["vessels"][number]) => (
          <div className="flex items-end gap-5">
            <div className="w-[150px] shrink-0">
              <JarSection {...vessel} fillMg={vessel.workingFillMg} scale={scale} />
            </div>
            <div className="pb-1">
              <strong>{vessel.name}</strong> <span className="text-soft">{vessel.material}</span>
              <div>
                <span className="figure text-[24px]">{units.g(vessel.workingFillMg)}</span> <span className="text-soft">working fill</span>
                {vessel.workingFillMg === vessel.statedFillMg ? null : <span className="text-soft"> ({units.g(vessel.statedFillMg)} stated)</span>}
              </div>
              {vessel.soldByWeight ? <div className="text-[14px] text-soft">sold by weight: the stated fill is a floor</div> : null}
            </div>
          </div>
        )}
      </Section>
      <Section
        title="Instruments"
        kind="instrument"
        rows={shelf.instruments}
        teach="No instrument yet. Add your thermometer and scale: each reading says which one it came from."
      >
        {(tool: Shelf["instruments"][number]) => (
          <>
            <strong>{tool.name}</strong>{" "}
            <span className="text-soft">
              {tool.kind}
              {tool.kind === "scale"
                ? tool.resolutionUg
                  ? `, one step is ${units.g(tool.resolutionUg / 1_000)}`
                  : ""
                : `, correction ${tool.correction > 0 ? "+" : ""}${units.tDifference(tool.correction)}`}
            </span>
          </>
        )}
      </Section>
      <Section title="People" kind="person" rows={shelf.people} teach="Nobody yet. Add who works here: each entry says who made it.">
        {(person: Shelf["people"][number]) => <strong>{person.name}</strong>}
      </Section>
    </Screen>
  );
}
