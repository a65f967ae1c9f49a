"use client";

import type { Aim, Mixture } from "@hearth/core";
import { Link } from "@/ui/address";
import { useUnits } from "@/ui/units";
import type { FillLine } from "./fill-model";

/** What the solver found, whether it is proved to be the best, and the way to plan it. */
export function FoundMix({
  mixture,
  aim,
  lines,
  formulas,
}: {
  mixture: Mixture;
  aim: Aim;
  lines: FillLine[];
  formulas: readonly { id: string; name: string }[];
}) {
  const units = useUnits();
  const write = (value: number) => (aim === "earn" ? units.money(value) : units.bulk(value));
  const made = lines.map((line, index) => ({ ...line, n: mixture.counts[index] ?? 0 })).filter((line) => line.n > 0);
  return (
    <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2">
      <p>
        {aim === "earn" ? "Profit " : "Stock used "}
        <span className="figure text-[30px]">{write(mixture.value)}</span>
      </p>
      {mixture.proved ? (
        <p className="font-semibold text-inside">✓ proved: no mix does better</p>
      ) : (
        <p className="font-semibold text-hot">
          ▲ not proved best in the time limit: a mix could reach up to {write(mixture.bound)},{" "}
          {units.n(((mixture.bound - mixture.value) / Math.max(1, mixture.value)) * 100, 2)} % more
        </p>
      )}
      {[...new Set(made.map((line) => line.formula))].map((id) => (
        <Link
          key={id}
          className="press"
          href={`/plan?formula=${id}&fill=${made.flatMap((line) => (line.formula === id ? [`${line.product?.id ?? line.container}:${line.n}`] : [])).join(",")}`}
        >
          Plan {formulas.find((formula) => formula.id === id)?.name}
        </Link>
      ))}
    </div>
  );
}
