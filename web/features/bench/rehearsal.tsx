"use client";

import { type ReactNode, useState } from "react";
import { FastTime } from "@/ui/units";
import { notice } from "@/ui/variants";

/** How fast a rehearsal goes, as many times as the clock. */
export const SPEEDS = [1, 10, 30, 60] as const;

export interface Speed {
  speed: number;
  setSpeed: (speed: number) => void;
}

/** The banner of a rehearsal: its own time, and that nothing of it counts. */
export function Rehearsal({ begin, children }: { begin: string; children: (speed: Speed) => ReactNode }) {
  const [speed, setSpeed] = useState(10);
  return (
    <FastTime begin={begin} speed={speed}>
      {children({ speed, setSpeed })}
    </FastTime>
  );
}

export function RehearsalMark() {
  return (
    <p className={notice({ tone: "cool", className: "mb-4 font-semibold" })} role="note">
      A practice run: the pot is simulated, time runs faster, and nothing counts in stock, rack or records.
    </p>
  );
}
