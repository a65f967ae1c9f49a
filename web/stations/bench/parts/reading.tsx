"use client";

import { parseTemperature } from "@hearth/core";
import { useCallback } from "react";
import { useUnits } from "@/ui/units";
import { type ActProps, HUGE } from "./act";
import { EntryForm } from "./entry-form";

/** An act that is held against a range: the range as large as the screen allows, and one reading. */
export function Reading({ step, batch, instruments, button }: ActProps & { button: string }) {
  const units = useUnits();
  const parse = useCallback((text: string) => parseTemperature(text, units.temperature), [units.temperature]);
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
        parse={parse}
        tools={instruments.filter((one) => one.kind !== "scale")}
        toolLabel="Thermometer"
        button={button}
        entry={(shown, tool) => ({ kind: "read", payload: { act: step.act, shown, correction: tool?.correction ?? 0 } })}
      />
    </>
  );
}
