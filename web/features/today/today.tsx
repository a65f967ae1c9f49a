"use client";

import type { ReactNode } from "react";
import { BatchRow } from "@/log/row";
import type { Listed, ReadInstrument, TodaysBatches } from "@/server/batches/batches";
import type { TrialListed } from "@/server/burn/trials";
import type { PlanNews } from "@/server/planning/planning";
import type { OrderSoon } from "@/server/sales/orders";
import { Link } from "@/ui/address";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useNow, useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { Flames } from "./flames";

/** A thing of the shelf with less stock than its low mark. */
export interface Low {
  kind: string;
  id: string;
  name: string;
  onHand: number;
  counted: boolean;
}

interface Due {
  batch: Listed;
  /** When it needs attention; null for now. */
  at: string | null;
  what: ReactNode;
  /** The same while it is still to come. */
  later?: ReactNode;
  action: string;
  href: string;
}

/** What a workshop in which nothing was ever made offers: to be led, to bring along what there is, to look round. */
function Begin() {
  const ways: { title: string; words: string; href: string; action: string; first?: boolean }[] = [
    {
      title: "Guided first batch",
      words: "One wax, one jar, one scent, three jars poured, step by step with the reasons. You can leave and come back.",
      href: "/first",
      action: "Start the first batch",
      first: true,
    },
    {
      title: "Import what you have",
      words: "Waxes, scents, jars, stock and products from a spreadsheet: as a CSV file, or pasted.",
      href: "/shelf/file",
      action: "Read a file",
    },
    {
      title: "Bring your notebook",
      words: "Past batches, burn notes and recipes from a spreadsheet, as you kept them. They tell what works before the first pour here.",
      href: "/records/notebook",
      action: "Import a notebook",
    },
    {
      title: "Enter it by hand",
      words: "Begin with the shelf: waxes, scents and jars. Formulas and batches use them.",
      href: "/shelf",
      action: "Go to the shelf",
    },
  ];
  return (
    <>
      <h2 className="border-b-[3px] border-ink pb-1">Start here</h2>
      <p className="mt-2 max-w-[640px] text-[18px]">
        Hearth Jar works out your wax and fragrance, guides each pour, and keeps the record of every batch, from the first weight to the sale.
      </p>
      <p className="max-w-[640px] text-[18px] font-semibold">Begin with one batch: three jars, step by step.</p>
      <ul>
        {ways.map((way) => (
          <li key={way.href} className="grid items-center gap-4 border-b border-line py-4 sm:grid-cols-[minmax(0,1fr)_auto]">
            <div>
              <h3>{way.title}</h3>
              <p className="mt-1 max-w-[560px] text-soft">{way.words}</p>
            </div>
            <Link className={way.first ? "action-button" : press({ size: "gloved" })} href={way.href} {...(way.first ? { "data-next-step": "" } : {})}>
              {way.action}
            </Link>
          </li>
        ))}
      </ul>
      <p className="mt-4 text-[15px] text-soft">
        To explore a workshop with months of records, start the demo, which runs beside this one: <code>./hearth demo</code>. It keeps its own data and never
        touches yours.
      </p>
    </>
  );
}

/** What the plan asks of today, and where it is late, short of stock, or needs what was not tested. */
function PlanSays({ plan }: { plan: PlanNews }) {
  const units = useUnits();
  const wrong = [
    ...(plan.late > 0 ? [`${plan.late} ${plan.late === 1 ? "piece" : "pieces"} would be late`] : []),
    ...(plan.minimum > 0 ? [`${plan.minimum} ${plan.minimum === 1 ? "piece" : "pieces"} would have the minimum cure only`] : []),
    ...(plan.short.length > 0
      ? [
          `short of ${plan.short
            .slice(0, 3)
            .map((item) => `${item.name}${item.by ? ` by ${units.onDay(item.by)}` : ""}`)
            .join(", ")}${plan.short.length > 3 ? ` and ${plan.short.length - 3} more` : ""}`,
        ]
      : []),
    ...(plan.untested.length > 0 ? [`not tested: ${plan.untested.join(", ")}`] : []),
  ];
  if (wrong.length === 0 && plan.today.length === 0) return null;
  return (
    <section aria-label="The plan">
      <h3>The plan</h3>
      {plan.today.length > 0 ? (
        <p className="mt-1">
          <Link href="/plan/day">Today's schedule</Link>: {plan.today.join("; ")}
        </p>
      ) : null}
      <ul className="mt-1">
        {wrong.map((text) => (
          <li key={text} className="border-t border-line py-1 text-[15px] font-semibold text-hot">
            ▲ {text}
          </li>
        ))}
      </ul>
      {wrong.length > 0 ? (
        <Link href="/plan/wanted" className="text-[15px]">
          View demand
        </Link>
      ) : null}
    </section>
  );
}

/** Orders and market days that are near. */
function GoesOut({ soon, today }: { soon: OrderSoon[]; today: string }) {
  const units = useUnits();
  return (
    <section aria-label="Going out">
      <h3>Going out</h3>
      <ul className="mt-1">
        {soon.map((orderSoon) => (
          <li key={orderSoon.id} className="border-t border-line py-1 text-[15px]">
            <Link href={`/sell/${orderSoon.id}`} className="font-semibold">
              {orderSoon.name}
            </Link>
            , {orderSoon.wantedOn === today ? "today" : units.onDay(orderSoon.wantedOn)}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The page of today: pots that need attention, then what is due, then what comes. */
export function Today({
  batches,
  more,
  standing,
  instruments,
  workshopName,
  low,
  blank,
  plan,
  burns,
  soon,
}: TodaysBatches & {
  instruments: ReadInstrument[];
  workshopName: string;
  low: Low[];
  /** Whether nothing was ever made here: what a newcomer is offered. */
  blank: boolean;
  plan: PlanNews | null;
  /** Burn trials that need attention. */
  burns: TrialListed[];
  /** Orders and market days of the next days. */
  soon: OrderSoon[];
}) {
  const units = useUnits();
  const now = useNow(30_000);
  const due: Due[] = batches.flatMap((batch): Due[] => {
    const { id, times, next } = batch;
    // A wait that runs is due when it is over; any other step at once.
    if (next) {
      const from = next.from !== null && Date.parse(next.from) > Date.parse(now) ? next.from : null;
      const late = next.until !== null && Date.parse(next.until) < Date.parse(now);
      return [{ batch, at: from, what: `pot, next: ${next.name}${late ? ", longer than meant" : ""}`, action: "Go to the pot", href: `/bench/${id}` }];
    }
    if (!times) return [{ batch, at: null, what: "pot", action: "Go to the pot", href: `/bench/${id}` }];
    if (!batch.lookedAt)
      return [
        { batch, at: times.setAt, what: "inspect it", later: "do not move it until then, then inspect it", action: "Inspect batch", href: `/inspect/${id}` },
      ];
    if (Date.parse(times.testFrom) > Date.parse(now))
      return [{ batch, at: times.testFrom, what: "ready to burn-test", later: "burn-test a jar from then", action: "Open on the rack", href: `/rack/${id}` }];
    return [
      {
        batch,
        at: times.sellFrom,
        what: "fully cured: release it for sale once it is burn-tested",
        later: "may be sold from then, once it is burn-tested",
        action: "Open on the rack",
        href: `/rack/${id}`,
      },
    ];
  });
  const reached = (item: Due) => item.at === null || Date.parse(item.at) <= Date.parse(now);
  const order = (a: Due, b: Due) => Date.parse(a.at ?? "1970-01-01") - Date.parse(b.at ?? "1970-01-01");
  const started = (item: Due) => Date.parse(item.batch.startedAt);
  const hands = due.filter(reached).sort((a, b) => order(a, b) || started(a) - started(b));
  const coming = due.filter((item) => !reached(item)).sort(order);
  const row = (item: Due, index: number, first: boolean) => (
    <BatchRow
      key={item.batch.id}
      batch={item.batch}
      href={reached(item) ? item.href : `/rack/${item.batch.id}`}
      instruments={instruments}
      first={first && index === 0}
      action={reached(item) ? item.action : "Open on the rack"}
      what={
        <>
          {item.at === null ? "" : `${units.dayClock(item.at)} · `}
          {reached(item) ? item.what : (item.later ?? item.what)}
          {item.at !== null && !reached(item) ? <span className="font-normal text-soft"> {units.away(item.at, now)}</span> : null}
        </>
      }
    />
  );
  return (
    <PageLayout
      title={units.day(now)}
      lead={
        <>
          {workshopName}, <span className="figure">{units.clock(now)}</span>
        </>
      }
      actions={
        batches.length === 0 ? null : (
          <Link className={press({ size: "gloved" })} href="/plan">
            Plan a batch
          </Link>
        )
      }
      side={
        <>
          {soon.length > 0 ? <GoesOut soon={soon} today={units.isoDay(now)} /> : null}
          {plan ? <PlanSays plan={plan} /> : null}
          {low.length > 0 ? (
            <section>
              <h3>Low on the shelf</h3>
              <ul className="mt-1">
                {low.map((low) => (
                  <li key={low.id} className="border-t border-line py-1 text-[15px]">
                    <Link className="underline" href={`/shelf/${low.kind}/${low.id}`}>
                      {low.name}
                    </Link>
                    <span className="text-hot"> ▲ {low.counted ? low.onHand : units.bulk(low.onHand)} there</span>
                  </li>
                ))}
              </ul>
            </section>
          ) : null}
          <Aside title="By the clock">Running pots come first, then what has waited longest. Times follow each batch's process.</Aside>
          <Aside title="Keys">Press ? for the keyboard shortcuts. Each section has one.</Aside>
        </>
      }
    >
      <Flames trials={burns} now={now} />
      {blank ? (
        <Begin />
      ) : batches.length === 0 ? (
        <Empty
          title="Nothing to do now"
          action={
            <Link className="action-button" href="/plan" data-next-step>
              Plan a batch
            </Link>
          }
        >
          <p>
            When pots run, jars set or candles cure, this page says what to do and when. Start with a batch: it needs a formula, and a formula needs a wax on
            the shelf.
          </p>
        </Empty>
      ) : (
        <>
          <section aria-label="Now">
            <h2 className="border-b-[3px] border-ink pb-1">Now</h2>
            {hands.length === 0 ? <p className="py-3 text-soft">Nothing now.</p> : <ul>{hands.map((hand, index) => row(hand, index, true))}</ul>}
          </section>
          <section aria-label="Coming" className="mt-6">
            <h2 className="border-b-[3px] border-ink pb-1">Coming</h2>
            {coming.length === 0 ? (
              <p className="py-3 text-soft">Nothing is setting or curing.</p>
            ) : (
              <ul>{coming.map((item, index) => row(item, index, false))}</ul>
            )}
            {more > 0 ? (
              <p className="py-2 font-semibold">
                <Link className="underline" href="/rack">
                  {more} more on the rack
                </Link>{" "}
                ask for something.
              </p>
            ) : null}
            {standing > 0 ? (
              <p className="py-2">
                <Link className="underline" href="/rack?state=ready">
                  {standing === 1 ? "1 cured batch" : `${standing} cured batches`}
                </Link>{" "}
                on the rack: close what is finished.
              </p>
            ) : null}
          </section>
        </>
      )}
    </PageLayout>
  );
}
