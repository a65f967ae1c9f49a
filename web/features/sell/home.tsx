"use client";

import { FindBar, type LongListProps, NothingFound, OlderNewer } from "@/catalogue/find-bar";
import type { FinishedGoodsRow } from "@/server/sales/finished-goods";
import type { OrderListed } from "@/server/sales/orders";
import { Link } from "@/ui/address";
import { Aside, Caution, Empty, PageLayout } from "@/ui/side-notes";
import { StockStrip } from "@/ui/stock-strip";
import { useNow, useUnits } from "@/ui/units";

/** Returns days from today to a day; negative where it is past. */
const daysTo = (day: string, today: string) => Math.round((Date.parse(day) - Date.parse(today)) / 86_400_000);

function OrderRow({ order, there, today, first }: { order: OrderListed; there: ReadonlyMap<string, number>; today: string; first: boolean }) {
  const units = useUnits();
  // A market day that is over is short of nothing.
  const isOver = order.what === "market" && order.wantedOn !== null && order.wantedOn < today;
  const shortage = isOver ? [] : order.lines.filter((line) => line.shortage > (there.get(line.sellable) ?? 0));
  const said = order.lines.filter((line) => !order.closed || line.out > 0);
  const out = order.lines.reduce((sum, line) => sum + line.there, 0);
  const sold = order.lines.reduce((sum, line) => sum + line.sold, 0);
  const money = order.lines.reduce((sum, line) => sum + line.money, 0);
  const days = order.wantedOn ? daysTo(order.wantedOn, today) : null;
  return (
    <li className="grid items-center gap-x-5 gap-y-1 border-b border-line py-3 sm:grid-cols-[84px_minmax(0,1fr)_auto]">
      <div>
        <span className="figure block text-[26px] leading-none">
          {order.closed ? `#${order.number}` : days === null ? "–" : days < 0 ? `${-days} d late` : days === 0 ? "today" : `${days} d`}
        </span>
        <span className="text-[14px] text-soft">{order.wantedOn ? units.onDay(order.wantedOn) : "no day"}</span>
      </div>
      <div className="min-w-0">
        <Link href={`/sell/${order.id}`} className="text-[18px] font-bold">
          {order.name}
        </Link>
        <p className="text-[15px] text-soft">
          {order.what === "order" ? "order" : "market day"} {order.number}
          {said.length > 0
            ? `: ${said
                .slice(0, 4)
                .map((line) => `${order.closed ? line.sold : line.asked || line.out} × ${line.name}`)
                .join(", ")}${said.length > 4 ? ", …" : ""}`
            : ""}
        </p>
        {order.closed ? (
          <p className="text-[15px]">
            {sold} sold, {units.money(money)}
          </p>
        ) : shortage.length > 0 ? (
          <p className="text-[15px] font-semibold text-hot">
            ▲ short {shortage.map((line) => `${line.shortage - (there.get(line.sellable) ?? 0)} × ${line.name}`).join(", ")}
          </p>
        ) : out > 0 ? (
          <p className="text-[15px] font-semibold">{out} packs are out</p>
        ) : (
          <p className="text-[15px] text-inside">✓ all in stock</p>
        )}
      </div>
      <Link
        href={`/sell/${order.id}`}
        className={first ? "action-button" : "press"}
        {...(first ? { "data-next-step": "" } : {})}
        aria-label={`${order.closed ? "Read" : "Open"} ${order.name}`}
      >
        {order.closed ? "Read" : "Open"}
      </Link>
    </li>
  );
}

/** One thing that can be sold: how much of it is there, asked for and on the plan, and the ways on. */
function FinishedGoodsCard({ of, most }: { of: FinishedGoodsRow; most: number }) {
  const units = useUnits();
  return (
    <li className="border-b border-line py-2">
      <div className="flex items-baseline justify-between gap-3">
        <Link href={of.sellable.kind === "set" ? `/sell/sets/${of.sellable.id}` : `/products/${of.sellable.id}`} className="min-w-0 font-bold">
          {of.sellable.name}
        </Link>
        <span className="shrink-0">
          <span className="figure text-[24px]">{of.packed + of.loose}</span>{" "}
          <span className="text-[14px] text-soft">{of.sellable.price === null ? "no price" : units.money(of.sellable.price)}</span>
        </span>
      </div>
      <StockStrip name={of.sellable.name} packed={of.packed} loose={of.loose} planned={of.planned} asked={of.shortage} most={most} />
      <p className="text-[14px] text-soft">
        {of.packed} packed
        {of.lots.length > 0 ? ` (batch ${[...new Set(of.lots.flatMap((lot) => lot.batches))].join(", ")})` : ""}, {of.loose} to pack
        {of.shortage > of.packed + of.loose ? (
          <strong className="text-hot"> ▲ {of.shortage} short</strong>
        ) : of.shortage > 0 ? (
          `, ${of.shortage} ordered`
        ) : null}
        {of.test === "failed" ? <strong className="text-safety"> ⚠ burn test failed</strong> : of.test === "test due" ? ", burn test due" : ""}
        {of.loose > 0 ? (
          <>
            {" · "}
            <Link className="underline" href={`/sell/pack?of=${of.sellable.id}`} aria-label={`pack ${of.sellable.name}`}>
              pack
            </Link>
          </>
        ) : null}
        {of.packed > 0 ? (
          <>
            {" · "}
            <Link className="underline" href={`/sell/labels?packRun=${of.lots[0]?.id}`} aria-label={`labels for ${of.sellable.name}`}>
              labels
            </Link>
          </>
        ) : null}
      </p>
    </li>
  );
}

/** What is there to sell, what is short first. */
function FinishedGoods({ finishedGoods }: { finishedGoods: FinishedGoodsRow[] }) {
  const shown = finishedGoods
    .filter((stocked) => stocked.packed + stocked.loose + stocked.shortage + stocked.planned > 0)
    .sort((a, b) => Number(b.shortage > b.packed + b.loose) - Number(a.shortage > a.packed + a.loose) || b.packed + b.loose - a.packed - a.loose);
  const most = Math.max(
    1,
    ...shown.map((finishedGoods) => Math.max(finishedGoods.packed + finishedGoods.loose + finishedGoods.planned, finishedGoods.shortage)),
  );
  return (
    <section aria-label="Finished goods">
      <h2 className="border-b-[3px] border-ink pb-1">Finished goods</h2>
      {shown.length === 0 ? (
        <p className="py-3 text-soft">Nothing is released or packed. Release a cured batch on the rack first.</p>
      ) : (
        <>
          <p className="my-2 text-[14px] text-soft" aria-hidden="true">
            <span className="inline-block size-3 bg-ink" /> packed <span className="ml-2 inline-block size-3 bg-soft" /> unpacked{" "}
            <span className="ml-2 inline-block size-3 border border-dashed border-ink" /> on the plan{" "}
            <span className="ml-2 inline-block h-3 w-[3px] bg-action" /> ordered
          </p>
          <ul>
            {shown.map((finishedGoods) => (
              <FinishedGoodsCard key={finishedGoods.sellable.id} of={finishedGoods} most={most} />
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

interface SellHomeProps extends LongListProps {
  open: OrderListed[];
  closed: OrderListed[];
  finishedGoods: FinishedGoodsRow[];
}

/** What is asked for and by when: what is open, then what is closed. */
function Orders({ open, closed, older, newer, finishedGoods, narrowed, filters }: SellHomeProps) {
  const units = useUnits();
  const today = units.isoDay(useNow(60_000));
  const there = new Map(finishedGoods.map((stocked) => [stocked.sellable.id, stocked.packed + Math.max(0, stocked.loose)]));
  const nothing = open.length + closed.length === 0 && !narrowed;
  return (
    <section aria-label="Orders and market days">
      <h2 className="border-b-[3px] border-ink pb-1">Orders and market days</h2>
      {nothing ? (
        <Empty title="No orders yet">
          <p>Add an order or a market day. What is short can go straight onto the plan.</p>
        </Empty>
      ) : (
        <>
          <div className="mt-3">
            <FindBar what="orders" {...filters} found={older || newer ? undefined : open.length + closed.length} />
          </div>
          {open.length + closed.length === 0 ? <NothingFound what="order" /> : null}
          <ul>
            {open.map((order) => (
              <OrderRow key={order.id} order={order} there={there} today={today} first={order.id === open[0]?.id} />
            ))}
          </ul>
          {closed.length > 0 ? <h3 className="mt-5 text-[17px] font-bold">Closed</h3> : null}
          <ul>
            {closed.map((order) => (
              <OrderRow key={order.id} order={order} there={there} today={today} first={false} />
            ))}
          </ul>
          <OlderNewer older={older} newer={newer} what="orders" />
        </>
      )}
    </section>
  );
}

/** The other parts of selling. */
const MoreOfSelling = () => (
  <nav aria-label="More of selling" className="flex flex-col items-start gap-2">
    <Link className="press" href="/sell/labels">
      Labels and cards
    </Link>
    <Link className="press" href="/sell/sales">
      What sold
    </Link>
    <Link className="press" href="/sell/recall">
      Recall a lot
    </Link>
    <Link className="press" href="/sell/sets/new">
      New set
    </Link>
    <Link className="press" href="/sell/import">
      Import orders
    </Link>
  </nav>
);

/** Open orders and market days with their dates, and finished goods. */
export function SellHome(props: SellHomeProps) {
  const first = props.open[0]?.id;
  return (
    <PageLayout
      title="Sell"
      lead="Orders, stock and sales."
      actions={
        <>
          <Link className={first ? "press" : "action-button"} href="/sell/new" {...(first ? {} : { "data-next-step": "" })}>
            New order
          </Link>
          <Link className="press" href="/sell/new?what=market">
            Plan a market day
          </Link>
          <Link className="press" href="/sell/pack">
            Pack
          </Link>
        </>
      }
      side={
        <>
          <MoreOfSelling />
          <Caution title="Before anything is sold">
            Cure, inspect and burn-test it, and label it for fire safety. Your country's rules and your insurer decide, not this program.
          </Caution>
          <Aside title="First in, first out">Packs of the oldest batch go first. Each sale keeps its batch, so that every jar can be traced.</Aside>
        </>
      }
    >
      <div className="grid grid-cols-1 gap-x-8 gap-y-6 xl:grid-cols-2">
        <Orders {...props} />
        <FinishedGoods finishedGoods={props.finishedGoods} />
      </div>
    </PageLayout>
  );
}
