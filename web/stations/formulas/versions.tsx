"use client";

import { difference, type FormulaSpec, wickToTestAgain } from "@hearth/core";
import { useUnits } from "@/ui/units";

export interface VersionShown {
  id: string;
  number: number;
  spec: FormulaSpec;
  batches: number;
}

/** The versions of a formula, newest first, each with what it changed. */
export function Versions({ versions, nameOf }: { versions: VersionShown[]; nameOf: (id: string) => string }) {
  const units = useUnits();
  if (versions.length < 2) return null;
  return (
    <section className="mt-8">
      <h2 className="border-b-[3px] border-ink pb-1">Versions</h2>
      <ol>
        {versions.map((version, index) => {
          const before = versions[index + 1];
          const changes = before ? difference(before.spec, version.spec, nameOf, units.temperature) : [];
          return (
            <li key={version.id} className="grid grid-cols-[60px_1fr_110px] gap-4 border-b border-line py-2">
              <span className="figure text-[24px]">{version.number}</span>
              <span>
                {before ? changes.map((change) => `${change.what} ${change.from} → ${change.to}`).join("; ") || "nothing but the name" : "the first"}
                {before && wickToTestAgain(before.spec, version.spec) ? (
                  <span className="block text-[14px] font-semibold">
                    The wick must be tested again: the fragrance, or the load by more than one point, has changed.
                  </span>
                ) : null}
                {changes.length > 1 ? (
                  <span className="block text-[14px] text-soft">
                    {changes.length} things changed at once: a difference in the candle cannot be traced to one of them.
                  </span>
                ) : null}
              </span>
              <span className="text-soft">
                {version.batches} {version.batches === 1 ? "batch" : "batches"}
              </span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
