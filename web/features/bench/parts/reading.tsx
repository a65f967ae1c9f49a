"use client";

import { useMemo } from "react";
import { temperatureRule } from "@/forms/rules";
import type { Batch, Instrument } from "@/log/use-batch";
import { useUnits } from "@/ui/units";
import { EntryForm } from "./entry-form";
import { HUGE, type StepProps } from "./step";

/** What spoils a reading with the chosen thermometer, said where it matters and nowhere else. */
function Reminder({ batch, tool }: { batch: Batch; tool: Instrument | undefined }) {
  const last = batch.marks.at(-1);
  const before = last?.instrumentId ? batch.name(last.instrumentId) : "";
  const other = tool && before && last?.instrumentId !== tool.id;
  if (!other && tool?.kind !== "infrared") return null;
  return (
    <p className="mt-1 text-[15px] text-soft">
      {other ? `The last reading was taken with ${before}: two thermometers rarely agree. ` : ""}
      {tool?.kind === "infrared" ? "Stir, then read the center at once: an infrared thermometer reads the surface only." : ""}
    </p>
  );
}

/** A step that is compared with a range: the range as large as the screen allows, and one reading. */
export function Reading({ prompt, batch, instruments, button }: StepProps & { button: string }) {
  const units = useUnits();
  const rule = useMemo(() => temperatureRule(units), [units]);
  const text = prompt.range ? units.range(prompt.range) : "";
  return (
    <>
      <div className="whitespace-nowrap">
        <span className={HUGE}>{text.slice(0, -3)}</span>
        <span className="figure text-[34px]"> {text.slice(-2)}</span>
      </div>
      <EntryForm
        batch={batch}
        label="Thermometer shows"
        unit={`°${units.temperature}`}
        rule={rule}
        tools={instruments.filter((instrument) => instrument.kind !== "scale")}
        toolLabel="Thermometer"
        button={button}
        entry={(shown, tool) => ({ kind: "read", payload: { step: prompt.step, shown, correction: tool?.correction ?? 0 } })}
      >
        {({ tool }) => <Reminder batch={batch} tool={tool} />}
      </EntryForm>
    </>
  );
}
