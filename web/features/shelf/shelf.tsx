"use client";

import { isCounted, SHELF_KINDS, type ShelfKind, STOCKED, type StockedKind, WAX_FAMILIES } from "@hearth/core";
import { useState } from "react";
import { FindBar, NothingFound, Pages, PUT_AWAY } from "@/catalogue/find-bar";
import type { ShelfFormProps } from "@/catalogue/shelf-form";
import { Tidy } from "@/catalogue/tidy";
import type { Stock, Stocks } from "@/server/inventory/shelf";
import type { ShelfPage, ShelfPart, ShelfRow } from "@/server/inventory/shelf-page";
import { Link } from "@/ui/address";
import { commonScale, JarSection } from "@/ui/jar-section";
import { lazy } from "@/ui/lazy";
import { Caution, PageLayout } from "@/ui/side-notes";
import { type Formats, useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { factsOf, PLURALS, TEACH, warnOf } from "./facts";
import { WickSeries } from "./series";

const ShelfForm = lazy<ShelfFormProps>(async () => (await import("@/catalogue/shelf-form")).ShelfForm, { typed: true });

const isStocked = (kind: ShelfKind): kind is StockedKind => (STOCKED as readonly string[]).includes(kind);

/** The stock of one thing, and whether it is low. */
export function OnHand({ stock, low, counted, units }: { stock: Stock | undefined; low: number | null; counted: boolean; units: Formats }) {
  if (!stock) return <span className="text-[14px] text-soft">not tracked</span>;
  const isLow = low !== null && stock.onHand < low;
  return (
    <span className={isLow ? "text-hot" : ""}>
      <span className="figure text-[22px]">{counted ? stock.onHand : units.bulk(stock.onHand)}</span>
      {stock.onHand < 0 ? (
        <span className="block text-[13px] font-semibold">▲ more used than received: count the stock</span>
      ) : isLow ? (
        <span className="block text-[13px] font-semibold">▲ low: below {counted ? low : units.bulk(low)}</span>
      ) : null}
    </span>
  );
}

/** How much there is, as a bar with the mark at which it is low. */
function StoreBar({ onHand, low }: { onHand: number; low: number | null }) {
  const full = Math.max(onHand, (low ?? 0) * 3, 1);
  const share = (amount: number) => `${Math.max(0, Math.min(100, (amount / full) * 100))}%`;
  return (
    <div aria-hidden="true" className="relative h-[12px] w-full bg-wax">
      <div className={`h-full ${low !== null && onHand < low ? "bg-hot" : "bg-ink"}`} style={{ width: share(onHand) }} />
      {low === null ? null : <div className="absolute -inset-y-[3px] w-[3px] bg-action-edge" style={{ left: share(low) }} />}
    </div>
  );
}

interface RowProps {
  kind: ShelfKind;
  row: ShelfRow;
  stock: Stock | undefined;
  goesOn: number | undefined;
  scale: number;
  nameOf: (id: string) => string;
  open: boolean;
  onOpen: () => void;
}

function Row({ kind, row, stock, goesOn, scale, nameOf, open, onOpen }: RowProps) {
  const units = useUnits();
  const low = (row.low as number | null | undefined) ?? null;
  const warns = warnOf(kind, row);
  const drawn = kind === "vessel" || kind === "mold";
  return (
    <div className="grid items-center gap-x-4 gap-y-1 sm:grid-cols-[64px_minmax(0,1fr)_130px_120px_auto]">
      <div className="flex justify-center max-sm:hidden">
        {drawn ? (
          <JarSection
            name={row.name}
            innerTopUm={row.innerTopUm as number}
            innerBottomUm={row.innerBottomUm as number}
            heightUm={row.heightUm as number}
            {...(row.shape ? { shape: row.shape as "straight" | "bowl" } : {})}
            wicks={kind === "vessel" ? (row.wicks as number) : 0}
            headspaceUm={null}
            fillMg={(kind === "vessel" ? row.workingFillMg : row.fillMg) as number}
            scale={scale}
          />
        ) : (
          <span className="text-[13px] text-soft">{(row.family ?? row.kind ?? "") as string}</span>
        )}
      </div>
      <div className="min-w-0">
        {isStocked(kind) ? (
          <Link href={`/shelf/${kind}/${row.id}`} className="font-bold break-words">
            {row.name}
          </Link>
        ) : (
          <strong className="break-words">{row.name}</strong>
        )}
        <span className="text-[14px] text-soft"> {factsOf(kind, row, units, nameOf)}</span>
        {row.remarks ? (
          <span className="block truncate text-[14px] text-soft" title={String(row.remarks)}>
            {String(row.remarks)}
          </span>
        ) : null}
        {warns.map((warn) => (
          <span key={warn} className="block text-[14px] font-semibold text-safety">
            ⚠ {warn}
          </span>
        ))}
      </div>
      {isStocked(kind) && stock ? (
        <div className="max-sm:hidden">
          <StoreBar onHand={stock.onHand} low={low} />
          {goesOn === undefined ? null : (
            <span className="text-[13px] text-soft">
              about {goesOn} {goesOn === 1 ? "batch" : "batches"} more
            </span>
          )}
        </div>
      ) : (
        <span />
      )}
      <div className="sm:text-right">{isStocked(kind) ? <OnHand stock={stock} low={low} counted={isCounted(kind)} units={units} /> : null}</div>
      <div className="flex gap-2">
        <button type="button" className={press({ size: "small" })} aria-expanded={open} onClick={onOpen} aria-label={`Change ${row.name}`}>
          Change
        </button>
        <Tidy kind={kind} id={row.id} name={row.name} away={row.archived} />
      </div>
    </div>
  );
}

function Part({
  part,
  alone,
  stocks,
  goesOn,
  waxes,
  narrowed,
}: {
  part: ShelfPart;
  alone: boolean;
  stocks: Stocks;
  goesOn: Record<string, number>;
  waxes: { id: string; name: string; blend: unknown }[];
  narrowed: boolean;
}) {
  const { kind, rows, found } = part;
  const [open, setOpen] = useState<string | null>(null);
  const scale = commonScale(kind === "vessel" || kind === "mold" ? (rows as never) : [], 52, 56);
  const nameOf = (id: string) => waxes.find((wax) => wax.id === id)?.name ?? "something no longer here";
  return (
    <section className="mb-6 scroll-mt-4" aria-label={PLURALS[kind].title} id={kind}>
      <div className="flex items-center justify-between border-b-[3px] border-ink pb-1">
        <h2>
          {PLURALS[kind].title} <span className="figure text-[17px] text-soft">{found}</span>
        </h2>
        <button type="button" className="press" onClick={() => setOpen("new")}>
          Add {/^[aeiou]/.test(kind) ? `an ${kind}` : `a ${kind}`}
        </button>
      </div>
      {open === "new" ? <ShelfForm kind={kind} row={null} waxes={waxes} onDone={() => setOpen((now) => (now === "new" ? null : now))} /> : null}
      {rows.length === 0 && open !== "new" && !narrowed ? <p className="py-2 text-soft">{TEACH[kind]}</p> : null}
      {kind === "wick" && rows.length > 1 ? <WickSeries wicks={rows as never} /> : null}
      <ul>
        {rows.map((row) => (
          <li key={row.id} className="border-b border-line py-[6px]">
            <Row
              kind={kind}
              row={row}
              stock={stocks[row.id]}
              goesOn={goesOn[row.id]}
              scale={scale}
              nameOf={nameOf}
              open={open === row.id}
              onOpen={() => setOpen(open === row.id ? null : row.id)}
            />
            {open === row.id ? <ShelfForm kind={kind} row={row} waxes={waxes} onDone={() => setOpen((now) => (now === row.id ? null : now))} /> : null}
          </li>
        ))}
      </ul>
      {!alone && found > rows.length ? (
        <Link className="press mt-2" href={`/shelf?kind=${kind}`}>
          All {found} {PLURALS[kind].name}
        </Link>
      ) : null}
    </section>
  );
}

/** What stands on the shelf: materials, vessels, instruments, and who works here. */
export function ShelfView(
  props: ShelfPage & { waxes: { id: string; name: string; blend: unknown }[]; kind: ShelfKind | null; page: number; narrowed: boolean },
) {
  const { parts, stocks, goesOn, waxes, kind, narrowed } = props;
  const shown = narrowed ? parts.filter((part) => part.rows.length > 0) : parts;
  return (
    <PageLayout
      title="Shelf"
      lead="Materials, vessels and tools, with their stock."
      actions={
        <Link className="press" href="/shelf/file">
          Import and export
        </Link>
      }
      side={
        <>
          <Caution title="Vessels">
            Use heat-safe glass, metal or ceramic only. Throw cracked jars away. Old glazed or painted vessels may contain lead: have them tested, or do not use
            them.
          </Caution>
          <Caution title="Not in a candle">
            No crayons, glitter, dried plants or anything else that burns near the wick. The supplier's data and your local rules come first.
          </Caution>
        </>
      }
    >
      <FindBar
        what="the shelf"
        found={narrowed || kind ? shown.reduce((sum, part) => sum + part.found, 0) : undefined}
        filters={[
          {
            key: "kind",
            label: "Kind",
            options: [{ value: "", label: "all" }, ...SHELF_KINDS.map((shelfKind) => ({ value: shelfKind, label: PLURALS[shelfKind].name }))],
          },
          {
            key: "family",
            label: "Family",
            options: [{ value: "", label: "all" }, ...WAX_FAMILIES.map((waxFamily) => ({ value: waxFamily, label: waxFamily }))],
          },
          {
            key: "low",
            label: "Stock",
            options: [
              { value: "", label: "all" },
              { value: "1", label: "low" },
            ],
          },
          PUT_AWAY,
        ]}
      />
      {kind ? null : (
        <nav aria-label="On the shelf" className="unprinted mb-4 flex flex-wrap gap-x-5 gap-y-1 text-[15px]">
          {shown.map((part) => (
            <a key={part.kind} className="underline" href={`#${part.kind}`}>
              {PLURALS[part.kind].name} <span className="figure">{part.found}</span>
            </a>
          ))}
        </nav>
      )}
      {shown.length === 0 ? <NothingFound what="thing on the shelf" /> : null}
      {shown.map((part) => (
        <Part key={part.kind} part={part} alone={kind !== null} stocks={stocks} goesOn={goesOn} waxes={waxes} narrowed={narrowed} />
      ))}
      <Pages page={props.page} pages={props.pages} />
    </PageLayout>
  );
}
