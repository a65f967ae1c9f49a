"use client";

import { type Band, inUnit, PRESET_PROCESSES, type Process, processFrom, stepTypeOf } from "@hearth/core";
import { Field, type useFields } from "@/forms/fields";
import { StepFields } from "@/forms/process-fields";
import type { CustomProcess } from "@/server/formulas/processes";
import { Link } from "@/ui/address";
import { LazyHeatLine } from "@/ui/lazy-heat-line";
import { useUnits } from "@/ui/units";

const OWN = "own";

/** How the wax of a formula is worked: a process to begin from, its ranges and times. */
export function ProcessPart({
  process,
  bands,
  ceiling,
  own,
  family,
  fields,
  onTake,
}: {
  process: Process;
  bands: Band[];
  ceiling: number;
  own: CustomProcess[];
  family: string;
  fields: Pick<ReturnType<typeof useFields>, "bind" | "text">;
  onTake: (process: Process) => void;
}) {
  const units = useUnits();
  const name = fields.text("processName");
  const picked = own.find((customProcess) => customProcess.name === name)?.id ?? PRESET_PROCESSES.find((preset) => preset.name === name)?.id ?? OWN;
  const suited = PRESET_PROCESSES.filter((preset) => preset.families.includes(family));
  const others = PRESET_PROCESSES.filter((preset) => !suited.includes(preset));
  const pick = (id: string) => {
    const mine = own.find((customProcess) => customProcess.id === id);
    if (mine) return onTake({ ...mine.process, name: mine.name });
    const ready = PRESET_PROCESSES.find((preset) => preset.id === id);
    if (ready) onTake(inUnit(processFrom(ready), units.temperature));
  };
  const option = (item: { id: string; name: string }) => (
    <option key={item.id} value={item.id}>
      {item.name}
    </option>
  );
  const numberOf = (id: string) => {
    const step = process.steps.find((step) => step.id === id);
    const alike = process.steps.filter((item) => item.kind === step?.kind);
    return alike.length > 1 ? alike.findIndex((step) => step.id === id) + 1 : undefined;
  };
  return (
    <section className="sheet">
      <h2 className="mb-2">Process</h2>
      <div className="mb-2 grid grid-cols-2 gap-4">
        <div>
          <label htmlFor="ready" className="mb-1 block text-[15px] font-semibold">
            Start from process
          </label>
          <select id="ready" className="entry" value={picked} onChange={(event) => pick(event.target.value)}>
            <option value={OWN}>custom</option>
            {own.length > 0 ? <optgroup label="Of this workshop">{own.map(option)}</optgroup> : null}
            <optgroup label={`For ${family || "this wax"}`}>{suited.map(option)}</optgroup>
            <optgroup label="For other waxes">{others.map(option)}</optgroup>
          </select>
        </div>
        <Field label="Process name" {...fields.bind("processName")} />
      </div>
      <p className="mb-2 text-[15px]">
        {process.steps.map((step) => stepTypeOf(step.kind).verb).join(" › ")}{" "}
        <Link className="underline" href="/formulas/processes">
          Processes of this workshop
        </Link>
      </p>
      <LazyHeatLine bands={bands} ceiling={ceiling} marks={[]} height={130} label="The ranges of this process" />
      <div className="mt-2 grid grid-cols-2 gap-x-4 gap-y-1 sm:grid-cols-4">
        {process.steps.map((step) => (
          <StepFields
            key={step.id}
            step={step}
            fields={fields}
            units={units}
            optional={false}
            {...(numberOf(step.id) ? { number: numberOf(step.id) as number } : {})}
          />
        ))}
        <Field label="Maximum temperature" unit={`°${units.temperature}`} {...fields.bind("ceiling")} narrow />
      </div>
      <div className="mt-2">
        <Field label="Why these temperatures" lines={2} {...fields.bind("reason")} />
        <Field label="Notes" lines={2} {...fields.bind("notes")} />
      </div>
    </section>
  );
}
