"use client";

import { type DemandProduct, dayAt, missOf, type PlannedPot, type PlanningSettings, planDemand, remedyOf, type Store, shoppingOf, weeksOf } from "@hearth/core";
import { useMemo } from "react";
import type { DemandRow } from "@/server/planning/planning";
import { Link } from "@/ui/address";
import { Aside, Caution, PageLayout, Warn } from "@/ui/side-notes";
import { useNow, useUnits } from "@/ui/units";
import { CalendarAddress } from "./calendar-address";
import { DemandDays } from "./demand-days";
import { WantedList } from "./demand-list";
import { DemandWeeks } from "./demand-weeks";
import { PlanningSettingsForm } from "./planning-settings";
import { ShoppingList } from "./shopping-list";
import { WhatIfPanel } from "./what-if";

interface SeasonProps {
  lines: DemandRow[];
  products: DemandProduct[];
  choices: { id: string; name: string }[];
  settings: PlanningSettings;
  version: number;
  calendarKey: string | null;
  draws: [string, [string, number][]][];
  stores: Store[];
}

const pieces = (n: number) => (n === 1 ? "1 piece" : `${n} candles`);

/** The demand plan: pots with their days for what must be ready, what to buy, and what limits it. */
export function DemandView(props: SeasonProps) {
  const { lines, products, choices, settings } = props;
  const units = useUnits();
  const now = useNow(60_000);
  const today = dayAt(now, units.zone);
  // Within a day nothing changes but by hand.
  const at = useMemo(() => ({ now, zone: units.zone }), [today, units.zone]);
  const demandPlan = useMemo(() => planDemand(lines, products, settings, at), [lines, products, settings, at]);
  const draws = useMemo(() => new Map(props.draws.map(([id, each]) => [id, new Map(each)])), [props.draws]);
  const toBuy = useMemo(() => shoppingOf(demandPlan.pots, draws, props.stores), [demandPlan, draws, props.stores]);
  const weeks = useMemo(() => weeksOf(demandPlan, settings), [demandPlan, settings]);
  const miss = missOf(demandPlan);
  const late = demandPlan.pots.filter((pot) => pot.is === "late");
  const untested = [...new Set(demandPlan.pots.filter((pot) => pot.untested).flatMap((pot) => pot.lines.map((line) => line.productId)))]
    .map((id) => products.find((product) => product.id === id))
    .filter((demandProduct) => demandProduct && !demandProduct.tested);
  const first = demandPlan.pots.find((pot) => pot.day !== null)?.day ?? null;
  return (
    <PageLayout
      title="Demand"
      lead="Enter what must be ready and by when. Pots are scheduled late enough to share, and early enough to cure."
      actions={
        <>
          {first ? (
            <Link className="action-button" href={`/plan/day?on=${first}`} data-next-step>
              Schedule of {units.onDay(first)}
            </Link>
          ) : null}
          <button type="button" className="press" onClick={() => window.print()} disabled={lines.length === 0}>
            Print
          </button>
        </>
      }
      side={
        <>
          {demandPlan.unknown.length > 0 ? (
            <Warn>{demandPlan.unknown.length} lines name a product that cannot be made: check its vessel and formula.</Warn>
          ) : null}
          {miss.late > 0 ? (
            <Warn>
              {pieces(miss.late)} would be late. {miss.minimum > 0 ? `${pieces(miss.minimum)} would have the minimum cure only.` : ""}
            </Warn>
          ) : miss.minimum > 0 ? (
            <Warn>{pieces(miss.minimum)} would have the minimum cure only.</Warn>
          ) : null}
          {late.slice(0, 4).map((pot) => (
            <LatePot key={pot.key} pot={pot} {...{ products, settings }} />
          ))}
          {untested.length > 0 ? (
            <Caution title="Not tested">
              {untested.map((demandProduct) => demandProduct?.name).join(", ")}: do not sell a candle whose wick has not passed a full burn test. Test first,
              and follow your local rules and your insurer.
            </Caution>
          ) : null}
          <WhatIfPanel {...{ lines, products, settings, demandPlan, at }} />
          <CalendarAddress calendarKey={props.calendarKey} />
          <Aside title="How days are chosen">
            Products of one formula that are due within {settings.gatherDays} days share pots. Each pot goes on the last working day that leaves the recommended
            cure and {settings.aheadDays === 1 ? "a day" : `${settings.aheadDays} days`} to finish it, if people, burners and table have room; otherwise on the
            first day that has room.
          </Aside>
        </>
      }
    >
      <WantedList lines={lines} choices={choices} pots={demandPlan.pots} />
      {demandPlan.pots.length > 0 ? (
        <>
          <DemandDays pots={demandPlan.pots} products={products} settings={settings} />
          <DemandWeeks {...{ weeks, lines, products, settings, demandPlan, at }} />
          <ShoppingList toBuy={toBuy} drawn={draws.size > 0} />
        </>
      ) : null}
      <PlanningSettingsForm settings={settings} version={props.version} />
    </PageLayout>
  );
}

/** By how much a pot misses its day, and what would make it. */
function LatePot({ pot, products, settings }: { pot: PlannedPot; products: DemandProduct[]; settings: PlanningSettings }) {
  const units = useUnits();
  const { cureDays, formulas } = remedyOf(pot, products, settings, units.zone);
  return (
    <section className="text-[15px]">
      <h2 className="text-[17px]">{pot.formulaName}</h2>
      <p className="mt-1">
        Due {units.onDay(pot.wantedOn ?? "")}
        {pot.day ? `, poured on ${units.onDay(pot.day)} at the earliest` : ""}: {pot.short} {pot.short === 1 ? "day" : "days"} too late even for the minimum
        cure.{" "}
        {cureDays < 1
          ? "No cure is short enough: move the due date."
          : `Only a wax that cures within ${cureDays} ${cureDays === 1 ? "day" : "days"} would do${formulas.length > 0 ? `: ${formulas.slice(0, 3).join(", ")}` : "; none of your formulas has one"}.`}
      </p>
    </section>
  );
}
