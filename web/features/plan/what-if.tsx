"use client";

import { type DemandLine, type DemandPlan, type DemandProduct, type PlanningSettings, whatIf } from "@hearth/core";
import { useMemo, useState } from "react";

interface WorthProps {
  lines: DemandLine[];
  products: DemandProduct[];
  settings: PlanningSettings;
  demandPlan: DemandPlan;
  at: { now: string; zone: string };
}

/** Shows what one more, or one less, of each resource would gain: the plan is worked out again with each. */
export function WhatIfPanel({ lines, products, settings, demandPlan, at }: WorthProps) {
  const [asked, setAsked] = useState(false);
  const missed = demandPlan.pots.some((pot) => pot.is === "late" || pot.is === "minimum");
  const found = useMemo(
    () => (asked && missed ? whatIf(lines, products, settings, at, demandPlan) : null),
    [asked, missed, lines, products, settings, at, demandPlan],
  );
  if (!missed) return null;
  const helps =
    found?.would.filter((whatIf) => whatIf.lateDays < found.now.lateDays || whatIf.late < found.now.late || whatIf.minimum < found.now.minimum) ?? [];
  return (
    <section aria-label="What would help?" className="text-[15px]">
      <h2 className="text-[17px]">What would help?</h2>
      {found === null ? (
        <button type="button" className="press mt-1" onClick={() => setAsked(true)}>
          Find what would help
        </button>
      ) : helps.length === 0 ? (
        <p className="mt-1">More people, burners or hours do not help, nor does leaving one product out: the cure is longer than the time that is left.</p>
      ) : (
        <ul className="mt-1">
          {helps.slice(0, 6).map((help) => (
            <li key={help.what} className="border-b border-line py-1">
              <strong>{help.what}</strong>: {help.late === 0 ? "nothing late" : `${help.late} late`}
              {help.minimum > 0 ? `, ${help.minimum} with the minimum cure` : ""}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
