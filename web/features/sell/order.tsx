"use client";

import type { OrderBody, Sellable } from "@hearth/core";
import { type ReactNode, useState, useTransition } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { Entries } from "@/log/entries";
import { useWorkshop } from "@/log/workshop";
import { eraseCustomer, putOnPlan, takeOut } from "@/server/sales/commands";
import { Link } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { useKeys } from "@/ui/keys";
import { Aside, PageLayout, Warn } from "@/ui/side-notes";
import { toast } from "@/ui/toast";
import { type ParcelCandle, ParcelNotes } from "@/ui/transport-notes";
import { useUnits } from "@/ui/units";
import { Asked } from "./order-asked";
import { type LineShort, type OrderShown, orderState, piecesShort, type Supplies } from "./order-model";
import { OutNow, Short, ToTakeOut } from "./order-panels";
import { type Order, type OrderProps, useOrder } from "./use-order";

interface OrderViewProps extends OrderProps, Omit<Supplies, "read" | "sellables"> {
  sellables: Sellable[];
  notes?: ReactNode;
  /** The candles in it, as far as they bear on the way to the buyer. */
  candles: ParcelCandle[];
}

/** What stands in place of a customer who was erased. */
const ERASED = "customer erased";

/** Erases the customer of an order for good, once that is pressed twice. */
function EraseCustomer({ orderId, onSaid }: { orderId: string; onSaid: (text: string) => void }) {
  const workshop = useWorkshop();
  const [asking, ask_] = useState(false);
  const [busy, start] = useTransition();
  const erase = () =>
    start(async () => {
      const outcome = await callAction(eraseCustomer(workshop, { orderId }));
      onSaid(outcome.ok ? "" : outcome.message);
      if (!outcome.ok) return;
      ask_(false);
      toast("Customer erased.");
    });
  return asking ? (
    <p className="unprinted mt-3 flex flex-wrap items-center gap-2 border-l-[6px] border-hot px-3 py-2">
      <span className="min-w-0 flex-1">Name, contact and notes of this order are erased for good. What was ordered and sold stays.</span>
      <button type="button" className="press" disabled={busy} onClick={erase}>
        Erase customer
      </button>
      <button type="button" className="press" onClick={() => ask_(false)}>
        Cancel
      </button>
    </p>
  ) : (
    <p className="unprinted mt-2">
      <button type="button" className="min-h-[44px] text-[15px] underline" onClick={() => ask_(true)}>
        Erase customer…
      </button>
    </p>
  );
}

/** The commands of an order that the server answers: taking packs out, and putting on the plan what is short. */
function useOrderCommands(order: Order, shown: OrderShown, sellables: readonly Sellable[], onSaid: (text: string) => void) {
  const workshop = useWorkshop();
  const [eventId, setEventId] = useState(() => v7());
  const [busy, start] = useTransition();
  const { state, plan } = order;
  return {
    busy,
    // What the server answers brings the stock along; the page is not read again, since at a stall the network may be gone by then.
    take: () =>
      start(async () => {
        const lines = shown.going.map(({ line, packs }) => ({ sellableId: line.sellable, packs }));
        const outcome = await callAction(takeOut(workshop, { eventId, orderId: order.id, lines }));
        onSaid(outcome.ok ? "" : outcome.message);
        if (!outcome.ok) return;
        setEventId(v7());
        toast(`Shipped${outcome.value.packed > 0 ? `, ${outcome.value.packed} packed for it` : ""}.`);
      }),
    putOnPlan: ({ line, short }: LineShort) =>
      start(async () => {
        const note = `${plan.what} ${order.number}: ${state.name}`.slice(0, 200);
        for (const part of piecesShort(sellables, shown.shortage, line.sellable)) {
          const outcome = await callAction(putOnPlan(workshop, { id: v7(), orderId: order.id, ...part, wantedOn: state.wantedOn, note }));
          if (!outcome.ok) return onSaid(outcome.message);
        }
        toast(`${short} × ${line.name} put on the plan.`);
      }),
  };
}

/** The next step of an order, and the way back. */
function OrderActions({
  next,
  isMarket,
  busy,
  onTake,
  onClose,
}: {
  next: OrderShown["next"];
  isMarket: boolean;
  busy: boolean;
  onTake: () => void;
  onClose: () => void;
}) {
  return (
    <>
      {next === "take" ? (
        <button type="button" className="action-button" data-next-step disabled={busy} onClick={onTake}>
          {isMarket ? (busy ? "Loading" : "Take to the market") : busy ? "Shipping" : "Ship"}
        </button>
      ) : next === "close" ? (
        <button type="button" className="action-button" data-next-step onClick={onClose}>
          {isMarket ? "Close market day" : "Close order"}
        </button>
      ) : null}
      <Link className="press" href="/sell">
        Back to Sell
      </Link>
    </>
  );
}

/** Its file, and closing or reopening it. */
function OrderFoot({ order, next, onClose, onSaid }: { order: Order; next: OrderShown["next"]; onClose: () => void; onSaid: (text: string) => void }) {
  const { workshopId } = useWorkshop();
  const { closed } = order.state;
  const reopen = async () =>
    closed && onSaid((await order.record({ kind: "withdrawn", payload: { why: "reopened", mode: "delete" }, corrects: closed.id }))?.message ?? "");
  return (
    <p className="unprinted mt-5 flex flex-wrap gap-2">
      <a className="press" href={`/api/workshops/${workshopId}/sales?order=${order.id}`} download>
        Download CSV
      </a>
      {closed ? (
        <button type="button" className="press" onClick={() => void reopen()}>
          Reopen record
        </button>
      ) : next !== "close" ? (
        <button type="button" className="press" onClick={onClose}>
          {order.plan.what === "market" ? "Close market day" : "Close order"}
        </button>
      ) : null}
    </p>
  );
}

/** What is asked for or goes along, once it is to be changed. */
function Change({ order, stock, sellables, onSaid }: { order: Order; stock: OrderShown["stock"]; sellables: Sellable[]; onSaid: (text: string) => void }) {
  const units = useUnits();
  const [changing, setChanging] = useState(false);
  const { what } = order.plan;
  const save = (asked: Extract<OrderBody, { kind: "asked" }>["payload"]) => {
    const why = order.enter({ kind: "asked", payload: asked });
    onSaid(why);
    if (!why) setChanging(false);
  };
  return changing ? (
    <Asked
      what={what}
      state={order.state}
      sellables={sellables}
      there={stock}
      today={units.isoDay(order.now)}
      onKeep={save}
      onLeave={() => setChanging(false)}
    />
  ) : (
    <button type="button" className="press mt-5" onClick={() => setChanging(true)}>
      Change what {what === "order" ? "is wanted" : "goes along"}
    </button>
  );
}

/** One order or market day: what is short, what goes out, what became of it. */
export function OrderView(props: OrderViewProps) {
  const order = useOrder(props);
  const units = useUnits();
  const [message, setMessage] = useState("");
  const { state, plan, lines } = order;
  const { what } = plan;
  useKeys([{ key: "u", does: "delete the last entry", run: () => void order.undo() }]);
  const shown = orderState(plan, state, lines, { ...props, read: props.order.state }, units.isoDay(order.now));
  const { going, shortage, money, isClosed, next } = shown;
  const hasToDo = !isClosed && going.length + shortage.length > 0;
  const commands = useOrderCommands(order, shown, props.sellables, setMessage);
  const close = () => setMessage(order.enter({ kind: "closed", payload: {} }));
  const wanted = state.wantedOn ? `${what === "order" ? "wanted by " : ""}${units.onDay(state.wantedOn)}` : "";
  return (
    <PageLayout
      gloved
      title={`${what === "order" ? "Order" : "Market day"} ${order.number}: ${state.name}`}
      lead={[wanted, state.whom].filter(Boolean).join(" · ") || undefined}
      actions={<OrderActions next={next} isMarket={order.plan.what === "market"} busy={commands.busy} onTake={commands.take} onClose={close} />}
      side={
        <>
          {Object.values(state.unplaced).some((n) => n > 0) ? <Warn>More was counted than went out. Check the entries below.</Warn> : null}
          {isClosed ? null : <ParcelNotes candles={props.candles} />}
          {what === "market" && !isClosed ? (
            <Aside title="Works offline">Count on the phone at the market: counts are kept there, and sent when there is a network again.</Aside>
          ) : null}
        </>
      }
    >
      <FormMessage className="mb-3">{message}</FormMessage>
      {money > 0 ? (
        <p className="mb-3">
          <span className="figure text-[40px]">{units.money(money)}</span> <span className="text-soft">taken</span>
        </p>
      ) : null}
      <div className={hasToDo ? "grid gap-x-8 xl:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]" : ""}>
        {hasToDo ? (
          <div>
            {going.length > 0 ? <ToTakeOut order={order} going={going} there={props.there} /> : null}
            {shortage.length > 0 ? <Short shortage={shortage} busy={commands.busy} onPlan={commands.putOnPlan} /> : null}
          </div>
        ) : null}
        <div>
          <OutNow order={order} state={shown} onSaid={setMessage} />
          {isClosed ? null : <Change order={order} stock={shown.stock} sellables={props.sellables} onSaid={setMessage} />}
        </div>
      </div>
      <OrderFoot order={order} next={next} onClose={close} onSaid={setMessage} />
      {what === "order" && (state.whom !== "" || state.name !== ERASED) ? <EraseCustomer orderId={order.id} onSaid={setMessage} /> : null}
      {props.notes}
      <section className="mt-6" aria-label="Entries">
        <h2 className="border-b-[3px] border-ink pb-1">Log</h2>
        <Entries log={order} newestFirst />
      </section>
    </PageLayout>
  );
}
