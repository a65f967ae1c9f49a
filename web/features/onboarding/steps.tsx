"use client";

import {
  bad,
  cautionsOnVessel,
  DEFAULT_WAX_DENSITY,
  fillByWater,
  parseLength,
  parseMassExactly,
  parseTemperature,
  STARTERS,
  starterOf,
  VESSEL_MATERIALS,
} from "@hearth/core";
import { type ReactNode, useMemo, useState, useTransition } from "react";
import { messagesOfValues } from "@/forms/call-action";
import { choiceRule, Field, type FieldRule, named, orNothing, useFields } from "@/forms/fields";
import { percentRule, waterRule } from "@/forms/rules";
import type { First } from "@/server/workshops/onboarding";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { JarSection } from "@/ui/jar-section";
import { useUnits } from "@/ui/units";

export type Rules = Record<string, FieldRule<unknown>>;

/** The result of saving a step. */
export type Saved = { ok: true } | { ok: false; message: string; fields: Record<string, string[]> };

/** One step's form: its fields, its one button, and what the server says. */
export function StepForm({
  rules,
  children,
  button,
  onSave,
}: {
  rules: Rules;
  children: (fields: ReturnType<typeof useFields<Rules>>) => ReactNode;
  button: string;
  /** Does it; gives what stands in the way. */
  onSave: (values: Record<string, unknown>) => Promise<Saved>;
}) {
  const fields = useFields(rules);
  const router = useRouter();
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  return (
    <form
      ref={fields.form}
      className="mt-3"
      onSubmit={(event) => {
        event.preventDefault();
        const values = fields.check() as Record<string, unknown> | null;
        if (!values) return;
        start(async () => {
          const out = await onSave(values);
          setMessage(out.ok ? "" : out.message);
          if (!out.ok) fields.refuse(messagesOfValues(out.fields));
          else router.refresh();
        });
      }}
    >
      {children(fields)}
      <FormMessage>{message}</FormMessage>
      <button type="submit" className="action-button mt-2" data-next-step disabled={busy}>
        {busy ? "Saving" : button}
      </button>
    </form>
  );
}

export type Put = (kind: string, values: Record<string, unknown>) => Promise<Saved>;

export function Tools({ first, put }: { first: First; put: Put }) {
  const units = useUnits();
  const steps = units.mass === "g" ? ["1 g", "0.1 g", "0.01 g"] : ["0.1 oz", "0.05 oz", "0.01 oz", "1 g", "0.1 g"];
  const rules = useMemo((): Rules => ({ scale: choiceRule(steps[0] ?? ""), thermometer: choiceRule("probe") }), [steps[0]]);
  return (
    <StepForm
      rules={rules}
      button="Save scale and thermometer"
      onSave={async ({ scale, thermometer }) => {
        const step = parseMassExactly(String(scale), units.mass);
        const first_ = first.scale
          ? { ok: true as const }
          : await put("instrument", {
              name: "scale",
              kind: "scale",
              correction: 0,
              resolutionUg: step.ok ? Math.round(step.value * 1e6) / 1_000 : null,
              capacityMg: null,
            });
        if (!first_.ok || first.thermometer) return first_;
        return put("instrument", { name: `${thermometer} thermometer`, kind: thermometer, correction: 0, resolutionUg: null, capacityMg: null });
      }}
    >
      {(fields) => (
        <div className="grid gap-x-5 sm:grid-cols-2">
          <Field
            label="Your scale reads to"
            {...fields.bind("scale")}
            options={steps.map((step) => ({ value: step, label: step }))}
            hint="Every weight is rounded to it."
          />
          <Field
            label="Your thermometer"
            {...fields.bind("thermometer")}
            options={[
              { value: "probe", label: "a probe in the wax" },
              { value: "infrared", label: "an infrared thermometer" },
              { value: "glass", label: "a glass thermometer" },
            ]}
            hint="Always use the same one: two thermometers rarely agree."
          />
        </div>
      )}
    </StepForm>
  );
}

export function Wax({ put }: { put: Put }) {
  const units = useUnits();
  const [family, setFamily] = useState<string>("soy");
  const starter = starterOf(family) ?? STARTERS[0];
  const rules = useMemo(
    (): Rules => ({
      name: { ...named("the wax", starter?.name) } as FieldRule<unknown>,
      most: percentRule({ least: 0.1, most: 100, name: "a maximum fragrance load" }, String((starter?.maxLoadPpm ?? 0) / 10_000)) as FieldRule<unknown>,
    }),
    [starter],
  );
  return (
    <>
      <fieldset className="mt-2 flex flex-wrap gap-2">
        <legend className="mb-1 text-[15px] font-semibold">What is it made of? The bag says.</legend>
        {STARTERS.map((starter) => (
          <label
            key={starter.family}
            className={`flex min-h-[44px] cursor-pointer items-center gap-2 border-2 border-ink px-3 ${family === starter.family ? "bg-ink text-sheet" : "bg-sheet"}`}
          >
            <input type="radio" name="family" className="accent-action" checked={family === starter.family} onChange={() => setFamily(starter.family)} />
            {starter.family}
          </label>
        ))}
      </fieldset>
      <p className="mt-2 text-soft">{starter?.because}</p>
      <StepForm
        key={family}
        rules={rules}
        button="Add to the shelf"
        onSave={({ name, most }) =>
          put("wax", {
            name,
            family,
            maxLoadPpm: most,
            leastCureSeconds: starter?.leastCureSeconds ?? null,
            cureSeconds: starter?.cureSeconds ?? null,
            remarks: "Typical figures: check them against the supplier's data.",
          })
        }
      >
        {(fields) => (
          <div className="grid gap-x-5 sm:grid-cols-2">
            <Field label="Name" {...fields.bind("name")} />
            <Field
              label="Maximum fragrance load"
              unit="% of the wax"
              {...fields.bind("most")}
              hint={`${units.percent(starter?.maxLoadPpm ?? 0)} is usual for ${family}. Your supplier's sheet comes first.`}
            />
          </div>
        )}
      </StepForm>
    </>
  );
}

export function Jar({ put }: { put: Put }) {
  const units = useUnits();
  const example = units.length === "mm" ? "like 75 mm" : "like 3 in";
  const rules = useMemo((): Rules => {
    const length = (text: string) => parseLength(text, { least: 5, most: 1_000 }, units.length);
    return {
      name: named("the jar") as FieldRule<unknown>,
      material: choiceRule("heat-safe glass"),
      across: { initial: "", parse: length, echo: (um) => units.len(um as number) },
      high: { initial: "", parse: length, echo: (um) => units.len(um as number) },
      water: waterRule(units, { least: 1_000, most: 20_000_000 }) as FieldRule<unknown>,
    };
  }, [units]);
  return (
    <StepForm
      rules={rules}
      button="Add the jar"
      onSave={async ({ name, material, across, high, water }) => {
        const caution = cautionsOnVessel({ material: String(material), state: "for sale" }).find((caution) => caution.weight === "stop");
        if (caution) return { ok: false, message: caution.message, fields: {} };
        const { fillMg } = fillByWater(water as number, DEFAULT_WAX_DENSITY);
        const fill = Math.max(1_000, units.asShown(fillMg));
        return put("vessel", {
          name,
          material,
          state: "for sale",
          statedFillMg: fill,
          workingFillMg: fill,
          innerTopUm: across,
          innerBottomUm: across,
          heightUm: high,
          headspaceUm: Math.min(10_000, Math.round((high as number) / 5)),
          waterMg: water,
          waterTo: "line",
        });
      }}
    >
      {(fields) => {
        const water = fields.values.water as number | undefined;
        const fillMg = water ? fillByWater(water, DEFAULT_WAX_DENSITY).fillMg : null;
        const [across, high] = [fields.values.across as number | undefined, fields.values.high as number | undefined];
        return (
          <div className="grid gap-x-6 sm:grid-cols-[minmax(0,1fr)_190px]">
            <div className="grid gap-x-5 sm:grid-cols-2">
              <Field label="Name of the jar" {...fields.bind("name")} placeholder="tumbler" />
              <Field
                label="Made of"
                {...fields.bind("material")}
                options={VESSEL_MATERIALS.map((vesselMaterial) => ({ value: vesselMaterial, label: vesselMaterial }))}
              />
              <Field label="Inside diameter" unit={units.length} {...fields.bind("across")} hint={`Measured inside, where the wax will stand, ${example}.`} />
              <Field label="Inside height" unit={units.length} {...fields.bind("high")} />
              <div className="sm:col-span-2">
                <Field
                  label="Weight of water to the fill line"
                  unit={units.mass}
                  {...fields.bind("water")}
                  large
                  inputMode="decimal"
                  hint="Jar on the scale, set it to zero, pour in water up to a finger below the rim, read the weight. Then dry the jar well."
                />
              </div>
            </div>
            <div className="text-center">
              {fillMg && across && high ? (
                <JarSection
                  name="your jar"
                  innerTopUm={across}
                  innerBottomUm={across}
                  heightUm={high}
                  fillMg={fillMg}
                  headspaceUm={null}
                  scale={Math.min(1.6, 130 / Math.max(across / 1_000, high / 1_000))}
                />
              ) : null}
              {fillMg ? (
                <p>
                  <span className="figure text-[34px]">{units.g(units.asShown(fillMg))}</span>
                  <span className="block text-[14px] text-soft">of wax and oil: wax is a tenth lighter than water</span>
                </p>
              ) : null}
            </div>
          </div>
        );
      }}
    </StepForm>
  );
}

export function Oil({ put }: { put: Put }) {
  const units = useUnits();
  const rules = useMemo(
    (): Rules => ({
      name: named("the scent") as FieldRule<unknown>,
      kind: choiceRule("fragrance"),
      flash: orNothing({
        initial: "",
        parse: (text: string) => {
          const read = parseTemperature(text, units.temperature);
          return read.ok || read.code !== "too-large"
            ? read
            : bad("too-large", "Flash points of oils lie between 65 and 150 °C (150 and 300 °F). Leave it empty if you do not know it.");
        },
        echo: (centi: number) => units.t(centi),
      }) as FieldRule<unknown>,
    }),
    [units],
  );
  return (
    <StepForm
      rules={rules}
      button="Add to the shelf"
      onSave={({ name, kind, flash }) => put("fragrance", { name, kind, flashPoint: flash, families: null, strength: null })}
    >
      {(fields) => (
        <div className="grid gap-x-5 sm:grid-cols-3">
          <Field label="Name of the scent" {...fields.bind("name")} placeholder="what the bottle says" />
          <Field
            label="It is"
            {...fields.bind("kind")}
            options={[
              { value: "fragrance", label: "a fragrance oil made for candles" },
              { value: "essential oil", label: "an essential oil" },
            ]}
          />
          <Field
            label="Flash point"
            unit={`°${units.temperature}`}
            {...fields.bind("flash")}
            hint="From its safety data sheet. Leave it empty if you do not know it."
          />
        </div>
      )}
    </StepForm>
  );
}

export function Wick({ first, put }: { first: First; put: Put }) {
  const units = useUnits();
  const rules = useMemo((): Rules => ({ name: named("the wick") as FieldRule<unknown>, kind: choiceRule("flat-braid cotton") }), []);
  const across = first.vessel?.innerTopUm ?? null;
  return (
    <StepForm
      rules={rules}
      button="Add to the shelf"
      onSave={({ name, kind }) =>
        put("wick", {
          name,
          kind,
          size: "",
          fromUm: across === null ? null : Math.max(5_000, across - 5_000),
          toUm: across === null ? null : across + 5_000,
          families: null,
        })
      }
    >
      {(fields) => (
        <div className="grid gap-x-5 sm:grid-cols-2">
          <Field
            label="Name of the wick"
            {...fields.bind("name")}
            placeholder="its kind and size, as the bag says"
            hint={across === null ? undefined : `For ${units.len(across)} across, ask the supplier which size; only a burn test tells.`}
          />
          <Field
            label="Kind"
            {...fields.bind("kind")}
            options={["flat-braid cotton", "square-braid cotton", "cotton with paper core", "zinc core", "wooden", "hemp"].map((text) => ({
              value: text,
              label: text,
            }))}
          />
        </div>
      )}
    </StepForm>
  );
}
