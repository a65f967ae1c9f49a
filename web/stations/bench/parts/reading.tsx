"use client";

import { useMemo } from "react";
import { temperatureRule } from "@/forms/rules";
import type { Batch, Instrument } from "@/log/use-batch";
import { useUnits } from "@/ui/units";
import { type ActProps, HUGE } from "./act";
import { EntryForm } from "./entry-form";

/** What spoils a reading with the chosen thermometer, said where it matters and nowhere else. */
function Reminder({ batch, tool }: { batch: Batch; tool: Instrument | undefined }) {
  const last = batch.marks.at(-1);
  const before = last?.instrumentId ? batch.name(last.instrumentId) : "";
  const other = tool && before && last?.instrumentId !== tool.id;
  if (!other && tool?.kind !== "infrared") return null;
  return (
    <p className="mt-1 text-[15px] text-soft">
      {other ? `The last reading was by ${before}: two thermometers seldom agree. ` : ""}
      {tool?.kind === "infrared" ? "Stir, then aim at the middle at once: it sees the surface only." : ""}
    </p>
  );
}

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
      >
        {({ tool }) => <Reminder batch={batch} tool={tool} />}
      </EntryForm>
    </>
  );
}
