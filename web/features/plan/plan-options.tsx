"use client";

import { fillOf, innerOf } from "@hearth/core";
import { useState } from "react";
import { DeferredField, Field } from "@/forms/fields";
import { useUnits } from "@/ui/units";
import { FromWeight } from "./from-weight";
import type { PlannerState } from "./use-planner";

/** How much more than the fills is made, what it begins from, and on which scales. */
export function PlanOptions({ plan, withStart }: { plan: PlannerState; withStart: boolean }) {
  const units = useUnits();
  const { fields, from, pots, scales, worked, fault } = plan;
  const scaleOptions = (suited?: { name: string }) => [
    { value: "", label: suited ? `automatic: ${suited.name}` : "automatic" },
    ...scales.map((scale) => ({ value: scale.id ?? "", label: `${scale.name} (${units.resolution(scale)})` })),
  ];
  const [open, setOpen] = useState(false);
  const isNeeded = from !== "vessels" || fault?.field === "pitcher_capacity_g" || ["stays", "pitcher", "startedAt"].some((name) => fields.text(name) !== "");
  return (
    <>
      <div className="mt-3 max-w-[220px]">
        <DeferredField
          label="Extra"
          unit="%"
          {...fields.bind("spare")}
          inputMode="decimal"
          hint={from === "vessels" ? "For the pitcher and the top-up." : "Not added to a weight."}
        />
      </div>
      <details className="mt-1" open={open || isNeeded} onToggle={(event) => setOpen(event.currentTarget.open)}>
        <summary className="min-h-[36px] cursor-pointer font-semibold">More options</summary>
        <div className="grid grid-cols-2 gap-x-4 gap-y-1">
          {pots > 1 ? null : (
            <Field
              label="Work from"
              {...fields.bind("from")}
              options={[
                { value: "vessels", label: "number of jars" },
                { value: "wax", label: "a weight of wax" },
                { value: "total", label: "a total" },
              ]}
            />
          )}
          {from === "vessels" ? null : (
            <DeferredField label={from === "wax" ? "Weight of wax" : "Total weight"} unit={units.mass} {...fields.bind("weight")} inputMode="decimal" />
          )}
          {scales.length > 0 ? (
            <>
              <Field label="Wax on" {...fields.bind("waxScale")} options={scaleOptions(worked?.ok ? worked.scales.wax : undefined)} />
              <Field label="Oil on" {...fields.bind("oilScale")} options={scaleOptions(worked?.ok ? worked.scales.oil : undefined)} />
            </>
          ) : null}
          {from === "vessels" ? (
            <DeferredField
              label="Left in each pitcher"
              unit={units.mass}
              {...fields.bind("stays")}
              inputMode="decimal"
              hint="On its wall and the spoon, besides the extra."
            />
          ) : null}
          <DeferredField
            label="A pitcher holds"
            unit={units.mass}
            {...fields.bind("pitcher")}
            {...(fault?.field === "pitcher_capacity_g" ? { error: fault.message } : {})}
            inputMode="decimal"
            hint={`Like ${units.mass === "g" ? "900 g" : "2 lb"}; empty for one pot.`}
          />
          {withStart ? <DeferredField label="Started" {...fields.bind("startedAt")} placeholder="now" hint="For a batch that is entered late." /> : null}
        </div>
      </details>
    </>
  );
}

/** Of a plan that begins from a weight: how far that goes over what is counted. */
export function PlanFromWeight({ plan }: { plan: PlannerState }) {
  const units = useUnits();
  const { fields, startFrom, planned, picked, lines, values } = plan;
  if (!startFrom || !planned || picked.length === 0) return null;
  return (
    <FromWeight
      totalMg={planned.pots[0]?.totalMg ?? 0}
      weightMg={values.weight ?? 0}
      picked={picked.map((item) => ({
        key: item.key,
        name: item.name,
        count: item.count,
        fillMg: fillOf(innerOf(item), item.workingFillMg, item.part ?? null),
      }))}
      others={lines.flatMap(({ key, container }) =>
        picked.some((item) => item.key === key) ? [] : [{ key, name: container.name, fillMg: container.workingFillMg }],
      )}
      onCounts={(counts) => fields.fill(Object.fromEntries(Object.entries(counts).map(([key, n]) => [`count:${key}`, String(n)])))}
      onWeight={(mg) => fields.set("weight", units.typed.g(units.asShown(mg)))}
    />
  );
}
