"use client";

import { useUnits } from "@/ui/units";
import type { ActProps } from "./act";

/** What only the clock does: until when. */
export function ByTheClock({ step, batch }: ActProps) {
  const units = useUnits();
  const until = step.kind === "set" ? batch.times?.setAt : batch.times?.testFrom;
  return (
    <p className="mt-2">{until ? `Until ${units.dayClock(until)}. The clock does it: there is nothing to enter.` : "It begins when the last pour is done."}</p>
  );
}
