import { inUnit, PRESET_PROCESSES, processFaults, processFrom, stepTypeOf } from "@hearth/core";
import { describe, expect, it } from "vitest";
import { formatters } from "@/ui/units";
import { keptProcessOf, processFromFields, processRules, stepFieldName } from "./process-fields";

const processes = (["C", "F"] as const).flatMap((unit) => PRESET_PROCESSES.map((preset) => [unit, preset.name, inUnit(processFrom(preset), unit)] as const));

/** Returns what the untouched fields of a process are read as. */
function valuesOf(process: (typeof processes)[number][2], unit: "C" | "F"): Record<string, unknown> {
  const rules = processRules(process, formatters({ mass: "g", temperature: unit, zone: "UTC", currency: "EUR" }));
  return Object.fromEntries(
    Object.entries(rules).map(([name, rule]) => {
      const read = rule.parse(rule.initial);
      return [name, read.ok ? read.value : undefined];
    }),
  );
}

describe("a process in fields", () => {
  it.each(processes)("comes back the same in °%s: %s", (unit, _name, process) => {
    const back = processFromFields(process, valuesOf(process, unit));
    expect(back).toEqual(process);
    expect(processFaults(back?.steps ?? [])).toEqual([]);
    expect(keptProcessOf(JSON.stringify(process))).toEqual(process);
  });

  it("is none without a field that a step needs, whichever it is", () => {
    let tried = 0;
    for (const [unit, , process] of processes)
      for (const step of process.steps)
        for (const field of stepTypeOf(step.kind).fields.filter((each) => !each.optional)) {
          const { [stepFieldName(step, field)]: _left, ...rest } = valuesOf(process, unit);
          expect(processFromFields(process, rest), `${process.name}, ${step.id}, ${field.key}`).toBeNull();
          const steps = process.steps.map((each) => (each.id === step.id ? { ...each, [field.key]: undefined } : each));
          expect(keptProcessOf(JSON.stringify({ ...process, steps })), `${process.name}, ${step.id}, ${field.key}`).toBeNull();
          tried += 1;
        }
    expect(tried).toBeGreaterThan(100);
  });

  it("that a device kept is none where it kept nothing, or a step that is not known", () => {
    expect(keptProcessOf(undefined)).toBeNull();
    expect(keptProcessOf(JSON.stringify({ name: "soy", heatRange: { low: 8_300, high: 8_700 } }))).toBeNull();
    expect(keptProcessOf(JSON.stringify({ ...processes[0]?.[2], steps: [{ id: "x", kind: "simmer" }] }))).toBeNull();
  });
});
