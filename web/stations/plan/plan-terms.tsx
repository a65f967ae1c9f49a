import { Field } from "@/forms/fields";
import { useUnits } from "@/ui/units";
import type { Planning } from "./use-planning";

/** How much is spared, what the amounts begin from, and on what they are weighed. */
export function PlanTerms({ planning: { fields, fault, from, pots, scales, worked } }: { planning: Planning }) {
  const units = useUnits();
  const scaleOptions = (suited: string) => [
    { value: "", label: `as suits: ${suited}` },
    ...scales.map((one) => ({ value: one.id ?? "", label: `${one.name} (${units.g(one.resolutionUg / 1_000)})` })),
  ];
  return (
    <div className="mt-3 grid grid-cols-2 gap-x-4 gap-y-1">
      <Field
        label="Spare"
        unit="%"
        {...fields.bind("spare")}
        inputMode="decimal"
        hint={from === "vessels" ? "For the pitcher and the top-up." : "Not added to a weight."}
      />
      {pots > 1 ? (
        <span />
      ) : (
        <Field
          label="Work from"
          {...fields.bind("from")}
          options={[
            { value: "vessels", label: "the fills of the vessels" },
            { value: "wax", label: "a weight of wax" },
            { value: "total", label: "a total" },
          ]}
        />
      )}
      {from === "vessels" ? null : (
        <Field label={from === "wax" ? "Wax to begin from" : "Total to begin from"} unit={units.mass} {...fields.bind("weight")} inputMode="decimal" />
      )}
      {scales.length > 0 ? (
        <>
          <Field label="Wax on" {...fields.bind("waxScale")} options={scaleOptions(worked?.ok ? worked.scales.wax.name : "the one that takes most")} />
          <Field label="Oil on" {...fields.bind("oilScale")} options={scaleOptions(worked?.ok ? worked.scales.oil.name : "the finest that takes it")} />
        </>
      ) : null}
      {from === "vessels" ? (
        <Field
          label="Stays in each pitcher"
          unit={units.mass}
          {...fields.bind("stays")}
          inputMode="decimal"
          hint="On its wall and the spoon: beside the spare."
        />
      ) : null}
      <Field
        label="A pitcher holds"
        unit={units.mass}
        {...fields.bind("pitcher")}
        {...(fault?.field === "pitcher_capacity_g" ? { error: fault.message } : {})}
        inputMode="decimal"
        hint={`Like ${units.mass === "g" ? "900 g" : "2 lb"}; empty for one pot.`}
      />
      <Field label="Started" {...fields.bind("startedAt")} placeholder="now" hint="For a batch that is entered late." />
    </div>
  );
}
