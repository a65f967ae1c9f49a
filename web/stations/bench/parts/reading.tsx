"use client";

import { useMemo } from "react";
import { temperatureRule } from "@/forms/rules";
import { useUnits } from "@/ui/units";
import { type ActProps, HUGE } from "./act";
import { EntryForm } from "./entry-form";

/** An act that is held against a range: the range as large as the screen allows, and one reading. */
export function Reading({ step, batch, instruments, button }: ActProps & { button: string }) {
  const units = useUnits();
  const rule = useMemo(() => temperatureRule(units), [units]);
  const text = step.range ? units.range(step.range) : "";
  return (
    <>
      <div>
        <span className={HUGE}>{text.slice(0, -3)}</span>
        <span className="figure text-[34px]"> {text.slice(-2)}</span>
      </div>
      <EntryForm
        batch={batch}
        label="Thermometer shows"
        unit={`°${units.temperature}`}
        rule={rule}
        tools={instruments.filter((one) => one.kind !== "scale")}
        toolLabel="Thermometer"
        button={button}
        entry={(shown, tool) => ({ kind: "read", payload: { act: step.act, shown, correction: tool?.correction ?? 0 } })}
      />
    </>
  );
}
