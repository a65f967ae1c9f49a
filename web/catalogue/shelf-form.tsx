"use client";

import { cautionsOnMaterial, cautionsOnVessel, readField, SHELF_FIELDS, type ShelfField, type ShelfKind, writeField } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { callAction, messagesOfValues } from "@/forms/call-action";
import { Field, type FieldRule, untouched, useFields } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { saveOnShelf } from "@/server/inventory/shelf-save";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { Caution } from "@/ui/side-notes";
import { type Formats, useUnits } from "@/ui/units";

export type ShelfRow = { id: string; name: string; version?: number } & Record<string, unknown>;

const optionsOf = (field: ShelfField) => {
  if (field.type.is === "choice") return [...(field.optional && field.first === undefined ? [{ value: "", label: "not known" }] : []), ...field.type.of];
  if (field.type.is === "yes") {
    return [
      { value: "no", label: "no" },
      { value: "yes", label: field.key === "soldByWeight" ? "yes: never below the net weight" : "yes" },
    ];
  }
  return undefined;
};

/** Returns what a number without a unit means in a field, shown at its label. */
const unitOf = (field: ShelfField, units: Formats): string | undefined => {
  const { type } = field;
  if (type.is === "range" || type.is === "difference" || type.is === "temperature") return `°${units.temperature}`;
  if (type.is === "mass" || type.is === "step") return units.mass;
  if (type.is === "length") return units.length;
  if (type.is === "volume") return units.mass === "g" ? "ml" : "fl oz";
  if (type.is === "money") return units.currency;
  if (type.is === "duration") return type.unit === "d" ? "days" : type.unit;
  return undefined;
};

/** The cautions on what is being put on the shelf, where it is typed. */
function EntryCautions({ kind, values }: { kind: ShelfKind; values: Record<string, unknown> }) {
  const units = useUnits();
  const cautions =
    kind === "vessel"
      ? cautionsOnVessel({
          material: String(values.material ?? ""),
          state: String(values.state ?? ""),
          use: String(values.use ?? ""),
          leadTestedOn: values.leadTestedOn ? String(values.leadTestedOn) : null,
        })
      : kind === "dye" || kind === "additive" || kind === "wax" || kind === "fragrance"
        ? cautionsOnMaterial(String(values.name ?? ""))
        : [];
  return cautions.map((caution) => (
    <div key={caution.message} className="mt-2" role="status">
      <Caution title={caution.weight === "stop" ? "Do not fill" : "Take care"}>{units.say(caution.message)}</Caution>
    </div>
  ));
}

/** Props of the form that adds a thing to the shelf or changes one. */
export interface ShelfFormProps {
  kind: ShelfKind;
  row: ShelfRow | null;
  waxes: { id: string; name: string; blend?: unknown }[];
  onDone: () => void;
  /** The name that a new one begins with. */
  name?: string;
  /** What was made, where another form waits for it. */
  onMade?: (id: string) => void;
}

/** Returns what a field is called: a density is a specific gravity where ounces are weighed, as US data sheets say it. */
const labelOf = (field: ShelfField, units: Formats): string =>
  field.type.is === "density" && units.mass === "oz"
    ? field.label.replace(/density/i, (word) => (word === "Density" ? "Specific gravity" : "specific gravity"))
    : field.label;

export function ShelfForm({ kind, row, waxes, onDone, name = "", onMade }: ShelfFormProps) {
  const units = useUnits();
  const router = useRouter();
  const workshop = useWorkshop();
  const fieldsOf = SHELF_FIELDS[kind];
  const rules = useMemo(() => {
    const context = { mass: units.mass, temperature: units.temperature, length: units.length, currency: units.currency, waxes };
    return Object.fromEntries(
      fieldsOf.map((field): [string, FieldRule<unknown>] => {
        const rule: FieldRule<unknown> = {
          initial: row ? writeField(field, row[field.key], context) : field.key === "name" ? name : units.say(field.first ?? ""),
          parse: (text: string) => readField(field, text, context),
          ...(["mass", "duration", "temperature", "percent", "length"].includes(field.type.is)
            ? {
                echo: (value: unknown) =>
                  value === null ? "" : field.type.is === "percent" ? units.percent(value as number) : writeField(field, value, context),
              }
            : {}),
        };
        return [field.key, row ? untouched<unknown>(rule, row[field.key] ?? (field.type.is === "words" ? "" : null)) : rule];
      }),
    );
  }, [fieldsOf, row, units, waxes, name]);
  const fields = useFields(rules);
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const [freshId] = useState(() => v7());
  const save = () => {
    const values = fields.check();
    if (!values) return;
    start(async () => {
      const outcome = await callAction(saveOnShelf(workshop, { kind, id: row?.id ?? null, freshId, expectedVersion: row?.version ?? null, values }));
      if (!outcome.ok) {
        setMessage(outcome.message);
        fields.refuse(messagesOfValues(outcome.fields));
        return;
      }
      if (onMade) return onMade(outcome.value.id);
      router.refresh();
      onDone();
    });
  };
  return (
    <form
      ref={fields.form}
      className={onMade ? "" : "sheet mt-3"}
      onSubmit={(event) => {
        event.preventDefault();
        // Beside another form, that one is not sent with it.
        event.stopPropagation();
        save();
      }}
      onKeyDown={(event) => event.key === "Escape" && onDone()}
    >
      <div className={`grid gap-x-5 gap-y-2 sm:grid-cols-2 ${onMade ? "" : "xl:grid-cols-3"}`}>
        {fieldsOf.map((field, index) => (
          <Field
            key={field.key}
            {...fields.bind(field.key)}
            label={labelOf(field, units)}
            hint={field.hint && units.say(field.hint)}
            options={optionsOf(field)}
            autoFocus={index === 0}
            unit={unitOf(field, units)}
          />
        ))}
      </div>
      <EntryCautions kind={kind} values={fields.values} />
      <FormMessage className="mt-2">{message}</FormMessage>
      <div className="mt-3 flex gap-3">
        <button type="submit" className="action-button" disabled={busy}>
          {row ? "Save changes" : "Add to the shelf"}
        </button>
        <button type="button" className="press" onClick={onDone}>
          Cancel
        </button>
      </div>
    </form>
  );
}
