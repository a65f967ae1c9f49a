"use client";

import { reservePourOf } from "@hearth/core";
import { Aside } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import type { PlannerState } from "./use-planner";

/** What the second pours of the chosen molds took before, and the way to keep so much back; nothing where none was weighed. */
export function SecondPour({ plan: { picked, process, reserves, reservePpm, setReserve } }: { plan: PlannerState }) {
  const units = useUnits();
  const again = reservePourOf(process?.steps ?? []);
  const learned = picked.flatMap((item) => reserves.find((reserve) => reserve.containerId === item.id) ?? []);
  const most = [...learned].sort((a, b) => b.median - a.median)[0];
  if (!again || !most) return null;
  const name = picked.find((item) => item.id === most.containerId)?.name ?? "This mold";
  const isSame = Math.abs(again.share - most.median) < 5_000;
  return (
    <Aside title="The second pour">
      {name} took {units.percent(most.median, 0)} of its fill in {most.pours} earlier second pours ({units.percent(most.least, 0)} to{" "}
      {units.percent(most.most, 0)}). {units.percent(again.share, 0)} is kept back.
      {isSame ? null : (
        <button type="button" className="press mt-2" onClick={() => setReserve(most.median)}>
          Keep {units.percent(most.median, 0)} back
        </button>
      )}
      {reservePpm === null ? null : (
        <button type="button" className="press mt-2" onClick={() => setReserve(null)}>
          As the process says
        </button>
      )}
    </Aside>
  );
}
