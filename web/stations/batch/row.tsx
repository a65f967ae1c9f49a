"use client";

import Link from "next/link";
import type { ReactNode } from "react";
import { HeatLine } from "@/ui/heat-line";
import type { Listed, ReadInstrument } from "./lists";

/** One batch in a list: what it is, what it waits for, its heat line at thumb size. */
export function BatchRow({
  batch,
  href,
  instruments,
  what,
  action,
  first = false,
  children,
}: {
  batch: Listed;
  href: string;
  instruments: ReadInstrument[];
  what: ReactNode;
  action: string;
  first?: boolean;
  children?: ReactNode;
}) {
  const { plan, readings, pouredAt } = batch.state;
  const kinds = new Map(instruments.map((one) => [one.id, one.kind]));
  return (
    <li className="grid items-center gap-x-5 gap-y-2 border-b border-line py-3 sm:grid-cols-[48px_minmax(0,1fr)_132px_172px]">
      <span className="figure text-[32px] leading-none max-sm:hidden">{batch.number}</span>
      <div className="min-w-0">
        <Link href={href} className="text-[19px] font-bold">
          <span className="sm:hidden">{batch.number} </span>
          {plan.formulaName}
        </Link>
        <div className="font-semibold">{what}</div>
        <div className="text-[15px] text-soft">{plan.vessels.map((vessel) => `${vessel.count} × ${vessel.name}`).join(", ")}</div>
        {children}
      </div>
      <HeatLine
        thumb
        height={46}
        gates={plan.spec.profile}
        ceiling={plan.spec.profile.ceiling}
        marks={readings.map((reading) => ({ ...reading, instrumentKind: kinds.get(reading.instrumentId ?? "") ?? null }))}
        moments={pouredAt ? [{ at: pouredAt, name: "poured" }] : []}
        label={`Heat line of batch ${batch.number}`}
      />
      <Link href={href} className={first ? "act" : "press !min-h-[56px]"} data-next-step={first ? "" : undefined}>
        {action}
      </Link>
    </li>
  );
}
