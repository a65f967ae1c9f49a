"use client";

import { CHECKS, type Check, checksFor } from "@hearth/core";
import { useState } from "react";
import type { Batch } from "@/log/use-batch";
import { useUnits } from "@/ui/units";

/** The list of what is looked at before the first pour. It is offered, not asked for. */
export function MadeReady({ batch }: { batch: Batch }) {
  const units = useUnits();
  const { prepared } = batch.state;
  const [ticked, setTicked] = useState<Check[]>([]);
  const names = checksFor(batch.plan);
  if (prepared)
    return (
      <p className="mb-2 text-[15px] text-inside">
        ✓ prepared at {units.clock(prepared.at)}: {prepared.checks.map((check) => CHECKS[check as Check]).join("; ")}
      </p>
    );
  return (
    <fieldset className="clear-both mb-3 border-b border-line pb-3">
      <legend className="text-[17px] font-bold">Before you pour</legend>
      <div className="grid gap-x-5 sm:grid-cols-2">
        {names.map((name) => (
          <label key={name} className="flex min-h-[44px] items-center gap-3">
            <input
              type="checkbox"
              className="size-6 shrink-0 accent-ink"
              checked={ticked.includes(name)}
              onChange={(event) => setTicked((old) => (event.target.checked ? [...old, name] : old.filter((other) => other !== name)))}
            />
            {CHECKS[name]}
          </label>
        ))}
      </div>
      <button
        type="button"
        className="press mt-2"
        disabled={ticked.length === 0}
        onClick={() => void batch.record({ kind: "prepared", payload: { checks: names.filter((name) => ticked.includes(name)) } })}
      >
        {ticked.length === names.length ? "All checked" : "Save checked items"}
      </button>
    </fieldset>
  );
}
