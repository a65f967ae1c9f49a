"use client";

import type { Planned } from "@hearth/core";
import { useUnits } from "@/ui/units";

/** What to weigh, kept in sight at the foot of a narrow screen while counts are typed. */
export function InSight({ planned }: { planned: Planned }) {
  const units = useUnits();
  const parts = planned.pots.flatMap((pot, index) => planned.rests[index]?.additions ?? pot.components).filter((component) => component.mg > 0);
  return (
    <div
      aria-hidden="true"
      className="unprinted sticky bottom-0 z-20 -mx-4 mt-4 flex flex-wrap gap-x-5 border-t-[3px] border-ink bg-sheet px-4 py-2 sm:-mx-8 sm:px-8 xl:hidden"
    >
      {parts.slice(0, 3).map((part) => (
        <span key={`${part.kind} ${part.id}`} className="truncate">
          <span className="figure text-[22px]">{units.onScale(part.mg, part.scale)}</span> <span className="text-[14px] text-soft">{part.name}</span>
        </span>
      ))}
      {parts.length > 3 ? <span className="self-end text-[14px] text-soft">and {parts.length - 3} more</span> : null}
    </div>
  );
}
