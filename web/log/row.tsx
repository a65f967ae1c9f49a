"use client";

import type { Band, CurveReading } from "@hearth/core";
import type { ReactNode } from "react";
import { Link } from "@/ui/address";
import { HeatLine } from "@/ui/heat-line";
import { marksOf } from "./marks";

/** What a row shows of a batch. */
export interface RowBatch {
  number: number;
  title: string;
  products: { name: string; count: number }[];
  bands: Band[];
  ceiling: number;
  thumb: CurveReading[];
  pouredAt: string | null;
}

/** One batch in a list: what it is, what it waits for, its heat line at thumb size. */
export function BatchRow({
  batch,
  href,
  instruments,
  what,
  action,
  first = false,
  at = href,
  children,
}: {
  batch: RowBatch;
  href: string;
  /** Where its name leads, if elsewhere than its action. */
  at?: string;
  instruments: { id: string; kind: string }[];
  what: ReactNode;
  action: string;
  first?: boolean;
  children?: ReactNode;
}) {
  const { pouredAt } = batch;
  return (
    <li className="grid items-center gap-x-5 gap-y-2 border-b border-line py-3 sm:grid-cols-[64px_minmax(0,1fr)_132px_172px]">
      <span className="figure text-[32px] leading-none max-sm:hidden">{batch.number}</span>
      <div className="min-w-0">
        <Link href={at} className="text-[19px] font-bold">
          <span className="sm:hidden">{batch.number} </span>
          {batch.title}
        </Link>
        <div className="font-semibold">{what}</div>
        <div className="text-[15px] text-soft">{batch.products.map((product) => `${product.count} × ${product.name}`).join(", ")}</div>
        {children}
      </div>
      <HeatLine
        thumb
        height={46}
        bands={batch.bands}
        ceiling={batch.ceiling}
        marks={marksOf(batch.thumb, instruments)}
        moments={pouredAt ? [{ at: pouredAt, name: "poured" }] : []}
        label={`Heat line of batch ${batch.number}`}
      />
      <Link href={href} className={first ? "action-button" : "press !min-h-[56px]"} data-next-step={first ? "" : undefined}>
        {action}
      </Link>
    </li>
  );
}
