"use client";

import { cautionsOnVessel, type OilTest } from "@hearth/core";
import type { ReactNode } from "react";
import type { KeptSheet } from "@/server/inventory/safety-data-sheets";
import type { Shelf, Stock, StockHistory } from "@/server/inventory/shelf";
import { Link } from "@/ui/address";
import { Aside, Caution, PageLayout } from "@/ui/side-notes";
import { FlashPoint, MeltingPoint } from "@/ui/transport-notes";
import { useUnits } from "@/ui/units";
import { OilTests } from "./oil-tests";
import { StockPanel } from "./stock";
import { SHEETED, type StockedThing } from "./stocked";
import { SupplierSheetPanel } from "./supplier-sheet";
import { VesselPanel } from "./vessel";

/** One thing of the shelf: for a vessel its fill and wicks, and for all its stock. */
export function ThingView(props: {
  of: StockedThing;
  low: number | null;
  stock: Stock | null;
  history: StockHistory;
  vessel: Shelf["vessels"][number] | null;
  waxes: Shelf["waxes"];
  wicks: Shelf["wicks"];
  /** The colors that are made with it, or for it. */
  colors: { name: string; dyes: string; tried: string }[];
  sheets: KeptSheet[];
  /** The oil that it is, with the others of the shelf and the tests it was in; null for anything else. */
  oil: { id: string; name: string; flashPoint: number | null } | null;
  oils: { id: string; name: string }[];
  oilTests: OilTest[];
  wax: { melt: number | null; wickAdvice: string } | null;
  notes?: ReactNode;
}) {
  const { of, vessel } = props;
  const units = useUnits();
  const sheeted = SHEETED.find((item) => item === of.kind);
  return (
    <PageLayout
      title={of.name}
      lead={vessel ? `${vessel.material}, kept ${vessel.state === "for sale" ? "for sale" : `as ${vessel.state}`}` : of.kind}
      actions={
        <Link className="press" href={`/shelf#${of.kind}`}>
          Back to the shelf
        </Link>
      }
      side={
        <>
          {vessel
            ? cautionsOnVessel(vessel).map((caution) => (
                <Caution key={caution.message} title={caution.weight === "stop" ? "Do not fill" : "Take care"}>
                  {units.say(caution.message)}
                </Caution>
              ))
            : null}
          {vessel ? (
            <Aside title="Why water is not wax">
              Weigh the water to the line, then wax fill = water × density of wax ÷ density of water. Without the factor the jar is about a tenth overfull.
            </Aside>
          ) : null}
          {props.oil ? <FlashPoint flashPoint={props.oil.flashPoint} /> : null}
          {props.wax?.melt ? <MeltingPoint melt={props.wax.melt} /> : null}
          {props.wax?.wickAdvice ? <Aside title="Wicks, by its supplier">{props.wax.wickAdvice}</Aside> : null}
          <Aside title="First in, first out">
            Each batch takes what it weighed from the oldest lot first, at the cost of those lots. A count corrects the stock; nothing earlier changes.
          </Aside>
          {of.kind === "fragrance" ? (
            <Aside title={units.say("{Milliliters and grams|Fluid ounces and ounces}")}>
              {units.say("A {milliliter|fluid ounce} is a volume. What it weighs depends on the oil: type {100 ml|4 fl oz} and the density tells.")}
            </Aside>
          ) : null}
        </>
      }
    >
      {vessel ? <VesselPanel key={vessel.version} vessel={vessel} waxes={props.waxes} wickShelf={props.wicks} /> : null}
      {vessel ? <h2 className="mb-3 border-b-[3px] border-ink pb-1">Stock</h2> : null}
      <StockPanel of={of} stock={props.stock} history={props.history} low={props.low} />
      {props.colors.length > 0 ? (
        <section className="mt-7" aria-label="Colors">
          <h2 className="border-b-[3px] border-ink pb-1">Colors</h2>
          <ul>
            {props.colors.map((color) => (
              <li key={color.name + color.tried} className="border-b border-line py-2">
                <strong>{color.name}</strong>: {color.dyes}
                {color.tried ? <span className="text-soft">, tried in {color.tried}</span> : null}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {props.oil ? <OilTests oil={props.oil} oils={props.oils} tests={props.oilTests} /> : null}
      {sheeted ? <SupplierSheetPanel kind={sheeted} materialId={of.id} sheets={props.sheets} /> : null}
      {props.notes}
    </PageLayout>
  );
}
