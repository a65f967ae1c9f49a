"use client";

import { cautionsOnVessel, isCounted, type ShelfKind, STOCKED, type StockedKind, writeDensity, writePercent } from "@hearth/core";
import Link from "next/link";
import { type ReactNode, useState } from "react";
import type { Shelf, Stock, Stocks } from "@/server/shelf";
import { commonScale, JarSection } from "@/ui/jar-section";
import { Caution, Screen } from "@/ui/margin";
import { useUnits, type Writers } from "@/ui/units";
import { ShelfForm, type ShelfRow } from "./shelf-form";

const isStocked = (kind: ShelfKind): kind is StockedKind => (STOCKED as readonly string[]).includes(kind);

/** What is there of one thing, as large as it matters, and whether that is low. */
export function OnHand({ stock, low, counted, units }: { stock: Stock | undefined; low: number | null; counted: boolean; units: Writers }) {
  if (!stock) return <span className="text-[14px] text-soft">not tracked</span>;
  const isLow = low !== null && stock.onHand < low;
  return (
    <span className={isLow ? "text-hot" : ""}>
      <span className="figure text-[24px]">{counted ? stock.onHand : units.bulk(stock.onHand)}</span>
      <span className={`block text-[14px] ${isLow ? "font-semibold" : "text-soft"}`}>
        {stock.onHand < 0 ? "▲ more used than received: count it" : isLow ? `▲ low: below ${counted ? low : units.bulk(low)}` : "on hand"}
      </span>
    </span>
  );
}

function Section({
  title,
  kind,
  rows,
  children,
  teach,
  stocks,
  waxes,
}: {
  title: string;
  kind: ShelfKind;
  rows: ShelfRow[];
  children: (row: never) => ReactNode;
  teach: string;
  stocks: Stocks;
  waxes: Shelf["waxes"];
}) {
  const units = useUnits();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <section className="mb-7 scroll-mt-4" aria-label={title} id={kind}>
      <div className="flex items-center justify-between border-b-[3px] border-ink pb-1">
        <h2>{title}</h2>
        <button type="button" className="press" onClick={() => setOpen("new")}>
          Add {kind === "instrument" || kind === "additive" ? `an ${kind}` : `a ${kind}`}
        </button>
      </div>
      {open === "new" ? <ShelfForm kind={kind} row={null} waxes={waxes} onDone={() => setOpen((now) => (now === "new" ? null : now))} /> : null}
      {rows.length === 0 && open !== "new" ? <p className="py-3 text-soft">{teach}</p> : null}
      <ul>
        {rows.map((row) => (
          <li key={row.id} className="border-b border-line py-2">
            <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
              <div className="min-w-[200px] flex-1">{children(row as never)}</div>
              {isStocked(kind) ? (
                <>
                  <div className="w-[150px] text-right max-sm:text-left">
                    <OnHand stock={stocks[row.id]} low={(row.low as number | null) ?? null} counted={isCounted(kind)} units={units} />
                  </div>
                  <Link className="press" href={`/shelf/${kind}/${row.id}`} aria-label={`${kind === "vessel" ? "Fill, stock" : "Stock"} of ${row.name}`}>
                    {kind === "vessel" ? "Fill, stock" : "Stock"}
                  </Link>
                </>
              ) : null}
              <button type="button" className="press" onClick={() => setOpen(open === row.id ? null : row.id)} aria-label={`Change ${row.name}`}>
                Change
              </button>
            </div>
            {open === row.id ? <ShelfForm kind={kind} row={row} waxes={waxes} onDone={() => setOpen((now) => (now === row.id ? null : now))} /> : null}
          </li>
        ))}
      </ul>
    </section>
  );
}

const joinSentences = (...facts: (string | null | false | undefined)[]) => facts.filter(Boolean).join(". ");
const join = (...facts: (string | null | false | undefined)[]) => facts.filter(Boolean).join(", ");

/** What stands on the shelf: materials, vessels, instruments, and who works here. */
export function ShelfView({ shelf, stocks }: { shelf: Shelf; stocks: Stocks }) {
  const units = useUnits();
  const scale = commonScale(shelf.vessels, 96, 150);
  const known = (ppm: number | null) => (ppm === null ? "largest load not known" : `takes up to ${writePercent(ppm)} of the wax`);
  const nameOf = (id: string) => shelf.waxes.find((one) => one.id === id)?.name ?? "something no longer here";
  const common = { stocks, waxes: shelf.waxes };
  const rest = (text: string) => (text ? <div className="text-[14px] text-soft">{text}</div> : null);
  const all: [string, string, number][] = [
    ["wax", "waxes", shelf.waxes.length],
    ["fragrance", "fragrances", shelf.fragrances.length],
    ["dye", "dyes", shelf.dyes.length],
    ["additive", "additives", shelf.additives.length],
    ["wick", "wicks", shelf.wicks.length],
    ["vessel", "vessels", shelf.vessels.length],
    ["mould", "moulds", shelf.moulds.length],
    ["instrument", "instruments", shelf.instruments.length],
  ];
  return (
    <Screen
      title="Shelf"
      lead="What a formula and a batch can be made of, and how much of it is there."
      actions={
        <Link className="press" href="/shelf/file">
          To and from a file
        </Link>
      }
      side={
        <>
          <Caution title="Vessels">
            Heat-safe glass, metal or ceramic only. A cracked jar is thrown away. Old glazed or painted vessels may hold lead: have them tested, or do not use
            them.
          </Caution>
          <Caution title="Not in a candle">
            No crayons, glitter or dried plants near the wick, nor anything that burns. The supplier's sheet and your local rules come first.
          </Caution>
        </>
      }
    >
      <nav aria-label="On the shelf" className="unprinted mb-5 flex flex-wrap gap-x-5 gap-y-1 text-[15px]">
        {all.map(([id, name, n]) => (
          <a key={id} className="underline" href={`#${id}`}>
            {name} <span className="figure">{n}</span>
          </a>
        ))}
      </nav>
      <Section
        title="Waxes"
        kind="wax"
        rows={shelf.waxes}
        {...common}
        teach="No wax yet. Add the wax you melt, with the largest load from its supplier's sheet: amounts are checked against it."
      >
        {(wax: Shelf["waxes"][number]) => (
          <>
            <strong>{wax.name}</strong>{" "}
            <span className="text-soft">
              {join(
                wax.family,
                known(wax.maxLoadPpm),
                wax.melt !== null && `melts at ${units.t(wax.melt)}`,
                wax.setDensity !== null && writeDensity(wax.setDensity),
              )}
            </span>
            {rest(joinSentences(wax.blend && `Weighed as ${wax.blend.map((part) => `${part.share} ${nameOf(part.id)}`).join(" + ")}`, wax.remarks))}
          </>
        )}
      </Section>
      <Section
        title="Fragrances"
        kind="fragrance"
        rows={shelf.fragrances}
        {...common}
        teach="No fragrance yet. Add one, with its flash point and largest load where you know them."
      >
        {(oil: Shelf["fragrances"][number]) => (
          <>
            <strong>{oil.name}</strong>{" "}
            <span className="text-soft">
              {join(
                oil.kind,
                known(oil.maxLoadPpm),
                oil.flashPoint !== null && `flash point ${units.t(oil.flashPoint)}`,
                oil.density !== null && writeDensity(oil.density),
                oil.strength !== null && oil.strength !== "middling" && oil.strength,
              )}
            </span>
            {rest(oil.remarks)}
          </>
        )}
      </Section>
      <Section
        title="Dyes"
        kind="dye"
        rows={shelf.dyes}
        {...common}
        teach="No dye yet. Add one with the weight of a drop, and drops draw on its stock as they are counted."
      >
        {(dye: Shelf["dyes"][number]) => (
          <>
            <strong>{dye.name}</strong>{" "}
            <span className="text-soft">
              {join(dye.kind, dye.eachMg !== null && `${units.g(dye.eachMg)} a ${dye.kind === "liquid" ? "drop" : "piece"}`, dye.strength)}
            </span>
            {rest(joinSentences(dye.colours && `Sets ${dye.colours}`, dye.remarks))}
          </>
        )}
      </Section>
      <Section
        title="Additives"
        kind="additive"
        rows={shelf.additives}
        {...common}
        teach="No additive yet. Stearic acid, hard polymers and the like go here, with the most their sheet allows."
      >
        {(additive: Shelf["additives"][number]) => (
          <>
            <strong>{additive.name}</strong>{" "}
            <span className="text-soft">
              {join(
                additive.usualPpm !== null && `usually ${writePercent(additive.usualPpm)}`,
                additive.maxPpm !== null && `at most ${writePercent(additive.maxPpm)} of the wax`,
              )}
            </span>
            {rest(joinSentences(additive.does, additive.remarks))}
          </>
        )}
      </Section>
      <Section title="Wicks" kind="wick" rows={shelf.wicks} {...common} teach="No wick yet. Add one with the diameters and waxes it suits.">
        {(wick: Shelf["wicks"][number]) => (
          <>
            <strong>{wick.name}</strong>{" "}
            <span className="text-soft">
              {join(
                wick.kind,
                wick.fromUm !== null && wick.toUm !== null && `for ${wick.fromUm / 1_000} to ${wick.toUm / 1_000} mm`,
                wick.families !== null && `in ${wick.families.join(" or ")}`,
              )}
            </span>
            {rest(wick.remarks)}
          </>
        )}
      </Section>
      <Section
        title="Vessels"
        kind="vessel"
        rows={shelf.vessels}
        {...common}
        teach="No vessel yet. Add a jar with its fill weight and inner measures: it is drawn to scale and filled on paper before you pour."
      >
        {(vessel: Shelf["vessels"][number]) => (
          <div className="flex items-end gap-5">
            <div className="w-[150px] shrink-0">
              <JarSection {...vessel} headspaceUm={null} fillMg={vessel.workingFillMg} scale={scale} />
            </div>
            <div className="pb-1">
              <strong>{vessel.name}</strong> <span className="text-soft">{vessel.material}</span>
              <div>
                <span className="figure text-[24px]">{units.g(vessel.workingFillMg)}</span> <span className="text-soft">working fill</span>
                {vessel.workingFillMg === vessel.statedFillMg ? null : <span className="text-soft"> ({units.g(vessel.statedFillMg)} stated)</span>}
              </div>
              {vessel.soldByWeight ? <div className="text-[14px] text-soft">sold by weight: the stated fill is a floor</div> : null}
              {cautionsOnVessel(vessel).map((one) => (
                <div key={one.message} className="text-[14px] font-semibold text-safety">
                  ⚠ {one.message}
                </div>
              ))}
            </div>
          </div>
        )}
      </Section>
      <Section
        title="Moulds"
        kind="mould"
        rows={shelf.moulds}
        {...common}
        teach="No mould yet. Pillar moulds, silicone moulds and melt trays go here: they are used again, so nothing of them is drawn."
      >
        {(mould: Shelf["moulds"][number]) => (
          <>
            <strong>{mould.name}</strong>{" "}
            <span className="text-soft">{join(mould.kind, mould.cavities > 1 && `${mould.cavities} cavities`, `${units.g(mould.fillMg)} each`)}</span>
            {rest(mould.remarks)}
          </>
        )}
      </Section>
      <Section
        title="Instruments"
        kind="instrument"
        rows={shelf.instruments}
        {...common}
        teach="No instrument yet. Add your thermometer and scale: each reading says which one it came from."
      >
        {(tool: Shelf["instruments"][number]) => (
          <>
            <strong>{tool.name}</strong>{" "}
            <span className="text-soft">
              {tool.kind === "scale"
                ? join(
                    "scale",
                    tool.resolutionUg !== null && `one step is ${units.g(tool.resolutionUg / 1_000)}`,
                    tool.capacityMg !== null && `takes up to ${units.bulk(tool.capacityMg)}`,
                  )
                : join(tool.kind, `correction ${tool.correction > 0 ? "+" : ""}${units.tDifference(tool.correction)}`)}
            </span>
          </>
        )}
      </Section>
      <Section title="People" kind="person" rows={shelf.people} {...common} teach="Nobody yet. Add who works here: each entry says who made it.">
        {(person: Shelf["people"][number]) => <strong>{person.name}</strong>}
      </Section>
    </Screen>
  );
}
