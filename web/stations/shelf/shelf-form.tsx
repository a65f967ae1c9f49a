"use client";

import { cautionsOnMaterial, cautionsOnVessel, readField, SHELF_FIELDS, type ShelfField, type ShelfKind, writeField, writePercent } from "@hearth/core";
import { useRouter } from "next/navigation";
import { useMemo, useState, useTransition } from "react";
import { Field, type FieldRule, untouched, useFields } from "@/forms/fields";
import { usePlace } from "@/log/place";
import { Caution } from "@/ui/margin";
import { useUnits, type Writers } from "@/ui/units";
import { saveOnShelf } from "./commands";

export type ShelfRow = { id: string; name: string; version?: number } & Record<string, unknown>;

const optionsOf = (field: ShelfField) => {
  if (field.type.is === "choice") return [...(field.optional && field.first === undefined ? [{ value: "", label: "not known" }] : []), ...field.type.of];
  if (field.type.is === "yes") {
    return [
      { value: "no", label: "no" },
      { value: "yes", label: field.key === "soldByWeight" ? "yes: never below the stated fill" : "yes" },
    ];
  }
  return undefined;
};

/** What a number without a unit means in a field, shown at its label. */
const unitOf = (field: ShelfField, units: Writers): string | undefined => {
  const { type } = field;
  if (type.is === "range" || type.is === "difference" || type.is === "temperature") return `°${units.temperature}`;
  if (type.is === "mass" || type.is === "step") return units.mass;
  if (type.is === "duration") return type.unit === "d" ? "days" : type.unit;
  return undefined;
};

/** The cautions on what is being put on the shelf, where it is typed. */
function EntryCautions({ kind, values }: { kind: ShelfKind; values: Record<string, unknown> }) {
  const cautions =
    kind === "vessel"
      ? cautionsOnVessel({ material: String(values.material ?? ""), state: String(values.state ?? "") })
      : kind === "dye" || kind === "additive" || kind === "wax" || kind === "fragrance"
        ? cautionsOnMaterial(String(values.name ?? ""))
        : [];
  return cautions.map((one) => (
    <div key={one.message} className="mt-2" role="status">
      <Caution title={one.weight === "stop" ? "Not to be filled" : "Take care"}>{one.message}</Caution>
    </div>
  ));
}

/** Puts a thing on the shelf or changes one, field by field as the shelf knows its kind. */
export function ShelfForm({
  kind,
  row,
  waxes,
  onDone,
}: {
  kind: ShelfKind;
  row: ShelfRow | null;
  waxes: { id: string; name: string; blend?: unknown }[];
  onDone: () => void;
}) {
  const units = useUnits();
  const router = useRouter();
  const place = usePlace();
  const fieldsOf = SHELF_FIELDS[kind];
  const rules = useMemo(() => {
    const context = { mass: units.mass, temperature: units.temperature, waxes };
    return Object.fromEntries(
      fieldsOf.map((field): [string, FieldRule<unknown>] => {
        const rule: FieldRule<unknown> = {
          initial: row ? writeField(field, row[field.key], context) : (field.first ?? ""),
          parse: (text: string) => readField(field, text, context),
          ...(["mass", "duration", "temperature", "percent"].includes(field.type.is)
            ? {
                echo: (value: unknown) =>
                  value === null ? "" : field.type.is === "percent" ? writePercent(value as number) : writeField(field, value, context),
              }
            : {}),
        };
        return [field.key, row ? untouched<unknown>(rule, row[field.key] ?? (field.type.is === "words" ? "" : null)) : rule];
      }),
    );
  }, [fieldsOf, row, units, waxes]);
  const fields = useFields(rules);
  const [said, setSaid] = useState("");
  const [busy, start] = useTransition();
  const save = () => {
    const values = fields.check();
    if (!values) return;
    start(async () => {
      const outcome = await saveOnShelf(place, { kind, id: row?.id ?? null, expectedVersion: row?.version ?? null, values }).catch(() => null);
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
      <div className="grid gap-x-5 gap-y-2 sm:grid-cols-2 xl:grid-cols-3">
        {fieldsOf.map((field, index) => (
          <Field
            key={field.key}
            {...fields.bind(field.key)}
            label={field.label}
            hint={field.hint}
            options={optionsOf(field)}
            autoFocus={index === 0}
            unit={unitOf(field, units)}
          />
        ))}
      </div>
      <EntryCautions kind={kind} values={fields.values} />
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
          Cancel
        </button>
      </div>
    </form>
  );
}
