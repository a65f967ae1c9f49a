import type { ReactNode } from "react";

interface StockStripProps {
  name: string;
  packed: number;
  loose: number;
  planned: number;
  /** Asked for and not out yet. */
  asked: number;
  /** The most that any strip beside it shows, so that all are to one scale. */
  most: number;
}

/** Finished goods as one bar to scale: packed, standing loose, on the plan; and how far what is asked for reaches. */
export function StockStrip({ name, packed, loose, planned, asked, most }: StockStripProps) {
  const width = 400;
  const x = (packs: number) => (Math.min(packs, most) / Math.max(1, most)) * width;
  const there = packed + loose;
  const label = `${name}: ${packed} packed, ${loose} to pack, ${planned} planned${asked > 0 ? `, ${asked} ordered` : ""}`;
  const part = (from: number, many: number, fill: string, extra: ReactNode = null) =>
    many > 0 ? (
      <>
        <rect x={x(from)} y={4} width={Math.max(2, x(from + many) - x(from))} height={16} className={fill} />
        {extra}
      </>
    ) : null;
  return (
    <svg viewBox={`0 0 ${width + 4} 28`} preserveAspectRatio="none" role="img" aria-label={label} className="block h-[28px] w-full">
      <rect x={0} y={4} width={width} height={16} className="fill-paper" />
      {part(0, packed, "fill-ink")}
      {part(packed, loose, "fill-soft")}
      {part(there, planned, "fill-none stroke-soft [stroke-dasharray:4_3]")}
      {asked > there ? <rect x={x(there)} y={20} width={Math.max(2, x(asked) - x(there))} height={6} className="fill-hot" /> : null}
      {asked > 0 ? <line x1={x(asked)} x2={x(asked)} y1={0} y2={27} className="stroke-action" strokeWidth={3} vectorEffect="non-scaling-stroke" /> : null}
    </svg>
  );
}
