"use client";

import { secondsAbove, writeDuration } from "@hearth/core";
import { useEffect, useRef } from "react";
import type { Batch } from "@/log/use-batch";
import { sound } from "@/ui/sound";
import { useNow, useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";

/** Sounds when the ceiling is passed while the pot is on the screen. */
export function AlarmSound({ since }: { since: string | null }) {
  const rang = useRef(since);
  useEffect(() => {
    if (since && rang.current !== since) sound(3);
    rang.current = since;
  }, [since]);
  return null;
}

/** Above the ceiling is an alarm, with how long and how often. */
export function CeilingAlarm({ batch }: { batch: Batch }) {
  const units = useUnits();
  const now = useNow();
  const { over } = batch.state;
  const { ceiling } = batch.plan.process;
  if (over.times === 0) return null;
  const long = writeDuration(secondsAbove(batch.state, now));
  if (over.since === null)
    return (
      <p className={notice({ size: "small" })}>
        It exceeded the maximum temperature of {units.t(ceiling)} {over.times === 1 ? "once" : `${over.times} times`}, {long} together
        {over.peak === null ? "" : `, up to ${units.t(over.peak)}`}.
      </p>
    );
  return (
    <div role="alert" className="mb-3 border-[3px] border-safety bg-safety-fill px-4 py-3">
      <p className="text-[20px] font-bold text-safety">
        ⚠ Above the maximum temperature of {units.t(ceiling)} for {long}
      </p>
      <p>
        Take it off the heat and stir. A short time above it does little harm; a long one discolors the wax, and it holds less oil. Never leave it; smother a
        wax fire, never use water.
      </p>
    </div>
  );
}
