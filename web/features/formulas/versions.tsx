"use client";

import { difference, type FormulaSpec, smallRaise, wickToTestAgain } from "@hearth/core";
import { useState } from "react";
import { useUnits } from "@/ui/units";

export interface VersionShown {
  id: string;
  number: number;
  spec: FormulaSpec;
  batches: number;
}

/** What differs between any two versions, in their own order. */
function Between({ versions, nameOf }: { versions: VersionShown[]; nameOf: (id: string) => string }) {
  const units = useUnits();
  const [from, setFrom] = useState(versions.at(-1)?.id ?? "");
  const [to, setTo] = useState(versions[0]?.id ?? "");
  const before = versions.find((version) => version.id === from);
  const after = versions.find((version) => version.id === to);
  const changes = before && after ? difference(before.spec, after.spec, nameOf, units) : [];
  const choose = (label: string, value: string, set: (id: string) => void) => (
    <label className="text-[15px] font-semibold">
      {label}{" "}
      <select className="entry !w-[90px]" value={value} onChange={(event) => set(event.target.value)}>
        {versions.map((version) => (
          <option key={version.id} value={version.id}>
            {version.number}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <section className="sheet mt-4" aria-label="Between two versions">
      <div className="flex flex-wrap items-center gap-4">
        {choose("From version", from, setFrom)}
        {choose("to version", to, setTo)}
      </div>
      <dl className="mt-2" aria-live="polite">
        {changes.map((change) => (
          <div key={change.what} className="grid grid-cols-[130px_1fr] gap-3 border-t border-line py-1">
            <dt className="text-soft">{change.what}</dt>
            <dd>
              {change.from} → <strong>{change.to}</strong>
            </dd>
          </div>
        ))}
      </dl>
      {changes.length === 0 ? <p className="mt-2 text-soft">Nothing differs between them.</p> : null}
      {before && after && wickToTestAgain(before.spec, after.spec) ? (
        <p className="mt-1 font-semibold">A burn test of one does not cover the other: fragrance or load differ too much.</p>
      ) : null}
    </section>
  );
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
          const changes = before ? difference(before.spec, version.spec, nameOf, units) : [];
          // What is only written down changes no candle.
          const things = changes.filter((change) => !["notes", "reason", "process"].includes(change.what)).length;
          return (
            <li key={version.id} className="grid grid-cols-[60px_1fr_110px] gap-4 border-b border-line py-2">
              <span className="figure text-[24px]">{version.number}</span>
              <span>
                {before ? changes.map((change) => `${change.what} ${change.from} → ${change.to}`).join("; ") || "only renamed" : "the first"}
                {before && wickToTestAgain(before.spec, version.spec) ? (
                  <span className="block text-[14px] font-semibold">
                    The wick must be tested again: the fragrance, or the load by more than one point, has changed.
                  </span>
                ) : null}
                {before && smallRaise(before.spec, version.spec) !== null ? (
                  <span className="block text-[14px] text-soft">
                    The load went up by less than two points ({units.n(smallRaise(before.spec, version.spec) ?? 0, 2)}), which is too small a difference to
                    notice.
                  </span>
                ) : null}
                {things > 1 ? (
                  <span className="block text-[14px] text-soft">
                    {things} things changed at once: a difference in the candle cannot be traced to one of them.
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
      {versions.length > 2 ? <Between versions={versions} nameOf={nameOf} /> : null}
    </section>
  );
}
