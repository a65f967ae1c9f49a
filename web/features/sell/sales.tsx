"use client";

import { dayWants, marginOfSold, type Sold, toPour } from "@hearth/core";
import { max } from "d3-array";
import { useState, useTransition } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { putOnPlan } from "@/server/sales/commands";
import type { FinishedGoodsRow } from "@/server/sales/finished-goods";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { Picture } from "@/ui/picture";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useWidth } from "@/ui/size";
import { SizedSvg } from "@/ui/sized-svg";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";

const SPANS = [
  { id: "90", says: "90 days" },
  { id: "365", says: "a year" },
  { id: "all", says: "all" },
] as const;

function Months({ months }: { months: { month: string; money: number; packs: number }[] }) {
  const units = useUnits();
  const size = useWidth<HTMLDivElement>(720);
  const { width } = size;
  const [height, foot] = [190, 22];
  const each = width / Math.max(1, months.length);
  const bar = each * 0.75;
  const most = max(months, (item) => item.money) || 1;
  const y = (money: number) => height - foot - (money / most) * (height - foot - 18);
  const every = Math.ceil(48 / each);
  return (
    <Picture
      name="sales-by-month"
      heads={["month", "money", "packs"]}
      rows={months.map((month) => [month.month, month.money / 10 ** units.moneyDecimals(), month.packs])}
    >
      <SizedSvg size={size} height={height} label="Money taken, month by month">
        {months.map((month, index) => (
          <g key={month.month}>
            <rect x={index * each} y={y(month.money)} width={bar} height={height - foot - y(month.money)} className="fill-ink" />
            {index % every === 0 ? (
              <text x={index * each + bar / 2} y={height - 6} textAnchor="middle" className="fill-soft text-[12px]">
                {month.month.slice(2)}
              </text>
            ) : null}
            {each >= 56 ? (
              <text x={index * each + bar / 2} y={y(month.money) - 5} textAnchor="middle" className="fill-ink text-[12px]">
                {units.money(month.money)}
              </text>
            ) : null}
          </g>
        ))}
        <line x1={0} x2={width} y1={height - foot} y2={height - foot} className="stroke-ink" strokeWidth={2} />
      </SizedSvg>
    </Picture>
  );
}

/** What sold so well that it wants to be poured again, and the way to put it on the plan. */
function PourNext({ sold, finishedGoods }: { sold: Sold[]; finishedGoods: FinishedGoodsRow[] }) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const next = finishedGoods
    .flatMap((row) => {
      const of = sold.find((item) => item.sellable === row.sellable.id) ?? { markets: 0, soldOut: 0, soldThere: 0 };
      const wants = toPour(of, { packed: row.packed, loose: row.loose, planned: row.planned, ordered: row.shortage, days: 1 });
      return wants.packs > 0 ? [{ row, ...wants }] : [];
    })
    .sort((a, b) => b.packs - a.packs);
  const plan = (item: (typeof next)[number]) =>
    start(async () => {
      for (const part of item.row.sellable.contents) {
        const outcome = await callAction(
          putOnPlan(workshop, { id: v7(), productId: part.productId, count: part.count * item.packs, wantedOn: null, note: "what sold" }),
        );
        if (!outcome.ok) return setMessage(outcome.message);
      }
      toast(`${item.packs} × ${item.row.sellable.name} put on the plan.`);
      router.refresh();
    });
  return next.length > 0 ? (
    <section className="mb-6" aria-label="What to pour next">
      <h2 className="border-b-[3px] border-ink pb-1">What to pour next</h2>
      <ul>
        {next.slice(0, 12).map((item) => (
          <li key={item.row.sellable.id} className="grid items-center gap-x-4 border-b border-line py-2 sm:grid-cols-[72px_minmax(0,1fr)_auto]">
            <span className="figure text-[30px]">{item.packs}</span>
            <span>
              <strong>{item.row.sellable.name}</strong> <span className="text-soft">{item.why}</span>
            </span>
            <button type="button" className="press" disabled={busy} aria-label={`Put on the plan: ${item.row.sellable.name}`} onClick={() => plan(item)}>
              Put on the plan
            </button>
          </li>
        ))}
      </ul>
      <FormMessage>{message}</FormMessage>
    </section>
  ) : null;
}

/** What each thing brought, what is left of it, and how often it sold out. */
function ByThing({ sold }: { sold: Sold[] }) {
  const units = useUnits();
  return (
    <section className="mt-4" aria-label="By product">
      <h2 className="border-b-[3px] border-ink pb-1">By product</h2>
      <WideTable label="Sales by product" least={760} heads={["thing", "sold", "brought", "left", "markets", "sold out", "for one market"]}>
        {sold.map((item) => {
          const margin = marginOfSold(item);
          return (
            <tr key={item.sellable} className="border-t border-line align-baseline">
              <td className="py-1 pr-4 font-semibold">{item.name}</td>
              <td className="figure pr-4 text-[19px]">
                {item.sold}
                {item.second > 0 ? <span className="text-[14px] text-soft"> + {item.second} as seconds</span> : null}
              </td>
              <td className="figure pr-4 text-[19px]">{units.money(item.money)}</td>
              <td className="figure pr-4 text-[19px]">
                {margin ? `${units.money(Math.round(margin.left))} · ${units.n(margin.share * 100, 0)} %` : "not known"}
              </td>
              <td className="pr-4">{item.markets > 0 ? `${item.soldThere} of ${item.taken} on ${item.markets}` : "none"}</td>
              <td className="pr-4">{item.soldOut > 0 ? <strong>on {item.soldOut}</strong> : "never"}</td>
              <td className="figure">{dayWants(item) ?? "–"}</td>
            </tr>
          );
        })}
      </WideTable>
    </section>
  );
}

/** What was taken, and what of it is left. */
function Sums({ sold }: { sold: Sold[] }) {
  const units = useUnits();
  const money = sold.reduce((sum, item) => sum + item.money, 0);
  const known = sold.filter((item) => item.cost !== null);
  const left = known.reduce((sum, item) => sum + item.money - (item.cost ?? 0), 0);
  return (
    <p className="mb-4 flex flex-wrap gap-x-8">
      <span>
        <span className="figure text-[40px]">{units.money(money)}</span> <span className="text-soft">taken</span>
      </span>
      {known.length > 0 ? (
        <span>
          <span className="figure text-[40px]">{units.money(Math.round(left))}</span>{" "}
          <span className="text-soft">left{known.length < sold.length ? ", of what has a known cost" : ""}</span>
        </span>
      ) : null}
    </p>
  );
}

/** The spans of time that sales are shown of. */
function Spans({ span }: { span: string }) {
  return (
    <nav aria-label="Period" className="flex flex-wrap gap-2">
      {SPANS.map((item) => (
        <Link
          key={item.id}
          className="press aria-[current=page]:bg-ink aria-[current=page]:text-sheet"
          href={`/sell/sales?span=${item.id}`}
          aria-current={item.id === span ? "page" : undefined}
        >
          {item.says}
        </Link>
      ))}
    </nav>
  );
}

/** What sold, what was left of it, what sold out, and what to pour next. */
export function SalesView({
  sold,
  months,
  finishedGoods,
  span,
  from,
  to,
}: {
  sold: Sold[];
  months: { month: string; money: number; packs: number }[];
  finishedGoods: FinishedGoodsRow[];
  span: string;
  from: string;
  to: string;
}) {
  const units = useUnits();
  const workshop = useWorkshop();
  return (
    <PageLayout
      title="What sold"
      lead={`${units.onDate(from)} to ${units.onDate(to)}`}
      actions={
        <>
          <a className="press" href={`/api/workshops/${workshop.workshopId}/sales?from=${from}&to=${to}`} download>
            Download CSV
          </a>
          <Link className="press" href="/sell">
            Back to Sell
          </Link>
        </>
      }
      side={
        <>
          <Spans span={span} />
          <Aside title="Margin">Revenue less the cost of the packs on the day they were packed, with labor and energy if set. No tax, no market fees.</Aside>
          <Aside title="Sold out">If all of it was sold, more could have been: a quarter more is suggested. Common practice, no source.</Aside>
        </>
      }
    >
      {sold.length === 0 ? (
        <Empty title="Nothing was sold in this time">
          <p>Sales appear here when orders are handed over and market days are counted.</p>
        </Empty>
      ) : (
        <>
          <Sums sold={sold} />
          <PourNext sold={sold} finishedGoods={finishedGoods} />
          {months.length > 1 ? <Months months={months} /> : null}
          <ByThing sold={sold} />
        </>
      )}
    </PageLayout>
  );
}
