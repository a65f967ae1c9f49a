"use client";

import { stepTypeOf } from "@hearth/core";
import { useUnits } from "@/ui/units";
import type { StepProps } from "./step";

/** A step that ends by the clock: how long it still takes. */
export function ByTheClock({ prompt, batch }: StepProps) {
  const units = useUnits();
  const until = stepTypeOf(prompt.kind).records === "cure_days" ? batch.times?.testFrom : batch.times?.setAt;
  return <p className="mt-2">{until ? `Until ${units.dayClock(until)}. Automatic: there is nothing to enter.` : "It begins when the last pour is done."}</p>;
}
