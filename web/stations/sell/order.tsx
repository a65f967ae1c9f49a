"use client";

import { type LineNow, type OrderBody, type Sellable, WENT, WENT_WORDS, type Went } from "@hearth/core";
import { type ReactNode, useState, useTransition } from "react";
import { v7 } from "uuid";
import { ask } from "@/forms/ask";
import { Entries } from "@/log/entries";
import { usePlace } from "@/log/place";
import { Link } from "@/ui/address";
import { useKeys } from "@/ui/keys";
import { Aside, Screen, Warn } from "@/ui/margin";
import { Said } from "@/ui/said";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { eraseCustomer, putOnPlan, takeOut } from "./commands";
import { Asked } from "./order-asked";
import { type Order, type OrderProps, useOrder } from "./use-order";

interface OrderViewProps extends OrderProps {
  sellables: Sellable[];
  /** Packs of each that are packed, and that loose pieces are enough for. */
  there: Record<string, { packed: number; loose: number }>;
  /** Pieces of each product that are on the plan for it. */
  planned: Record<string, number>;
  notes?: ReactNode;
}

const VERBS: Record<Went, string> = { sold: "Sold", given: "Given", second: "As second", back: "Back" };

/** One thing of it: how many are out, and what became of them, by one tap each. */
function LineCard({ line, order, onSaid }: { line: LineNow; order: Order; onSaid: (text: string) => void }) {
  const units = useUnits();
  const [many, setMany] = useState("1");
  const packs = Math.max(1, Number.parseInt(many, 10) || 1);
  const closed = order.facts.closed !== null;
  const put = (to: Went) => {
    onSaid(order.enter({ kind: "went", payload: { sellable: line.sellable, name: line.name, packs, to, each: null, why: "" } }));
    setMany("1");
  };
  return (
    <li className="grid gap-x-5 gap-y-2 border-b-2 border-line py-3 lg:grid-cols-[minmax(0,1fr)_auto]">
      <div className="flex items-start gap-4">
        <span className="min-w-[64px]">
          <span className="figure block text-[44px] leading-none">{closed ? line.sold : line.there}</span>
          <span className="text-[14px] text-soft">{closed ? "sold" : "out"}</span>
        </span>
        <div className="min-w-0">
          <h3 className="text-[19px] font-bold">{line.name}</h3>
          <p className="text-[15px] text-soft">
            {[
              line.asked > 0 ? `${line.asked} ${order.plan.what === "order" ? "asked for" : "to take"}` : "",
              line.out > 0 ? `${line.out} out` : "",
              ...WENT.filter((to) => line[to] > 0).map((to) => `${line[to]} ${WENT_WORDS[to]}`),
              line.price === null ? "no price" : `${units.money(line.price)} each`,
            ]
              .filter(Boolean)
              .join(" · ")}
            {line.money > 0 ? <strong className="text-ink"> · {units.money(line.money)}</strong> : null}
          </p>
        </div>
      </div>
      {line.there > 0 && !closed ? (
        <div className="flex flex-wrap items-end gap-2">
          <label className="block">
            <span className="sr-only">How many of {line.name}</span>
            <input
              className="entry figure !min-h-[56px] !w-[72px] text-center text-[24px]"
              inputMode="numeric"
              value={many}
              onChange={(event) => setMany(event.target.value.replace(/\D/g, ""))}
            />
          </label>
          {WENT.map((to) => (
            <button
              key={to}
              type="button"
              className={to === "sold" ? "act !min-h-[56px] text-[18px]" : press({ size: "gloved" })}
              onClick={() => put(to)}
              aria-label={`${VERBS[to]}: ${line.name}`}
            >
              {VERBS[to]}
            </button>
          ))}
        </div>
      ) : null}
    </li>
  );
}

/** What stands in place of a customer who was erased. */
const ERASED = "customer erased";

/** Erases the customer of an order for good, once that is pressed twice. */
function EraseCustomer({ orderId, onSaid }: { orderId: string; onSaid: (text: string) => void }) {
  const place = usePlace();
  const [asking, ask_] = useState(false);
  const [busy, start] = useTransition();
  const erase = () =>
    start(async () => {
      const outcome = await ask(eraseCustomer(place, { orderId }));
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

/** One order or market day: what lacks, what goes out, what became of it. */
export function OrderView(props: OrderViewProps) {
  const order = useOrder(props);
  const units = useUnits();
  const place = usePlace();
  const [said, setSaid] = useState("");
  const [changing, setChanging] = useState(false);
  const [eventId, setEventId] = useState(() => v7());
  const [busy, start] = useTransition();
  const { plan, facts, lines } = order;
  const what = plan.what;
  useKeys([{ key: "u", does: "take the last entry back", act: () => void order.undo() }]);
  // What went out or came back since the page was read is not in stock, or in stock again: the page is not read anew, since at a stall the network may be gone.
  const outNet = (of: typeof facts, id: string) => of.goods.reduce((sum, one) => (one.sellable === id ? sum + one.out - one.back : sum), 0);
  const thereOf = (id: string) =>
    Math.max(0, (props.there[id]?.packed ?? 0) + (props.there[id]?.loose ?? 0) + outNet(props.order.facts, id) - outNet(facts, id));
  const isOver = what === "market" && facts.wantedOn !== null && facts.wantedOn < units.isoDay(order.now);
  /** Packs of a thing that what is on the plan for this order is enough for. */
  const plannedOf = (id: string) => {
    const contents = props.sellables.find((each) => each.id === id)?.contents ?? [];
    return contents.length === 0 ? 0 : Math.min(...contents.map((part) => Math.floor((props.planned[part.productId] ?? 0) / part.count)));
  };
  const going = lines.flatMap((one) => {
    const packs = Math.min(one.lacking, thereOf(one.sellable));
    return packs > 0 ? [{ line: one, packs }] : [];
  });
  const lacking = isOver ? [] : lines.filter((one) => one.lacking > thereOf(one.sellable));
  const out = lines.reduce((sum, one) => sum + one.there, 0);
  const money = lines.reduce((sum, one) => sum + one.money, 0);
  const closed = facts.closed !== null;
  // What the server answers brings the stock along; the page is not read again, since at a stall the network may be gone by then.
  const take = () =>
    start(async () => {
      const outcome = await ask(takeOut(place, { eventId, orderId: order.id, lines: going.map(({ line, packs }) => ({ sellableId: line.sellable, packs })) }));
      setSaid(outcome.ok ? "" : outcome.message);
      if (!outcome.ok) return;
      setEventId(v7());
      toast(`Taken out${outcome.value.packed > 0 ? `, ${outcome.value.packed} packed for it` : ""}.`);
    });
  const plan_ = (one: LineNow) =>
    start(async () => {
      const contentsOf = (id: string) => props.sellables.find((each) => each.id === id)?.contents ?? [];
      // One line of the plan for each product: what all things of this order that hold it are short of.
      const piecesOf = (productId: string) =>
        lacking.reduce(
          (sum, each) => sum + (each.lacking - thereOf(each.sellable)) * (contentsOf(each.sellable).find((part) => part.productId === productId)?.count ?? 0),
          0,
        );
      const packs = one.lacking - thereOf(one.sellable);
      for (const part of contentsOf(one.sellable)) {
        const outcome = await ask(
          putOnPlan(place, {
            id: v7(),
            orderId: order.id,
            productId: part.productId,
            count: piecesOf(part.productId),
            wantedOn: facts.wantedOn,
            note: `${what} ${order.number}: ${facts.name}`.slice(0, 200),
          }),
        );
        if (!outcome.ok) return setSaid(outcome.message);
      }
      toast(`${packs} × ${one.name} put on the plan.`);
    });
  const all = (to: Went) => {
    for (const one of lines)
      if (one.there > 0) {
        const why = order.enter({ kind: "went", payload: { sellable: one.sellable, name: one.name, packs: one.there, to, each: null, why: "" } });
        if (why) return setSaid(why);
      }
    setSaid("");
  };
  const save = (asked: Extract<OrderBody, { kind: "asked" }>["payload"]) => {
    const why = order.enter({ kind: "asked", payload: asked });
    setSaid(why);
    if (!why) setChanging(false);
  };
  const close = () => setSaid(order.enter({ kind: "closed", payload: {} }));
  const reopen = async () =>
    facts.closed && setSaid((await order.record({ kind: "withdrawn", payload: { why: "reopened", whole: true }, corrects: facts.closed.id }))?.message ?? "");
  const next = closed ? null : going.length > 0 ? "take" : out > 0 ? "count" : lines.some((one) => one.out > 0) ? "close" : null;
  const allThere = Object.fromEntries(Object.keys(props.there).map((id) => [id, thereOf(id)]));
  return (
    <Screen
      gloved
      title={`${what === "order" ? "Order" : "Market day"} ${order.number}: ${facts.name}`}
      lead={
        [facts.wantedOn ? `${what === "order" ? "wanted by " : ""}${units.onDay(facts.wantedOn)}` : "", facts.whom].filter(Boolean).join(" · ") || undefined
      }
      actions={
        <>
          {next === "take" ? (
            <button type="button" className="act" data-next-step disabled={busy} onClick={take}>
              {busy ? "Taking" : "Take them out"}
            </button>
          ) : next === "close" ? (
            <button type="button" className="act" data-next-step onClick={close}>
              Close it
            </button>
          ) : null}
          <Link className="press" href="/sell">
            Back to selling
          </Link>
        </>
      }
      side={
        <>
          {Object.values(facts.unplaced).some((n) => n > 0) ? <Warn>More was counted as gone than went out. Look at the entries below.</Warn> : null}
          {what === "market" && !closed ? (
            <Aside title="Without the network too">
              Count on the phone at the stall: what is tapped is kept there, and sent once there is a network again.
            </Aside>
          ) : null}
        </>
      }
    >
      <Said className="mb-3">{said}</Said>
      {money > 0 ? (
        <p className="mb-3">
          <span className="figure text-[40px]">{units.money(money)}</span> <span className="text-soft">taken</span>
        </p>
      ) : null}
      {going.length > 0 && !closed ? (
        <section className="sheet mb-5" aria-label="To take out">
          <h2>{what === "order" ? "Ready to go out" : "To take along"}</h2>
          <ul>
            {going.map(({ line, packs }) => {
              const packed = Math.min(packs, props.there[line.sellable]?.packed ?? 0);
              return (
                <li key={line.sellable} className="flex items-baseline gap-3 border-b border-line py-1">
                  <span className="figure text-[26px]">{packs}</span>
                  <span className="min-w-0 font-semibold">{line.name}</span>
                  <span className="text-[15px] text-soft">
                    {packed === packs ? "packed" : packed > 0 ? `${packed} packed, ${packs - packed} packed as they go` : "packed as they go"}
                  </span>
                </li>
              );
            })}
          </ul>
        </section>
      ) : null}
      {lacking.length > 0 && !closed ? (
        <section className="mb-5" aria-label="Short">
          {lacking.map((one) => {
            const short = one.lacking - thereOf(one.sellable);
            const planned = plannedOf(one.sellable);
            const covered = planned >= short;
            return (
              <div
                key={one.sellable}
                className={`flex flex-wrap items-center gap-3 border-l-[6px] px-3 py-2 ${covered ? "border-line" : "border-hot bg-hot-fill"}`}
              >
                <p className="min-w-0 flex-1">
                  <strong>
                    {covered ? "" : "▲ "}Short {short} × {one.name}
                  </strong>
                  : {thereOf(one.sellable)} in stock, {one.lacking} needed{planned > 0 ? `, ${planned} on the plan` : ""}.
                </p>
                {covered ? (
                  <Link className="press" href="/plan/wanted">
                    See the plan
                  </Link>
                ) : (
                  <button type="button" className="press" disabled={busy} onClick={() => plan_(one)} aria-label={`Put on the plan: ${one.name}`}>
                    Put on the plan
                  </button>
                )}
              </div>
            );
          })}
        </section>
      ) : null}
      <section aria-label="What is out">
        <div className="flex flex-wrap items-end justify-between gap-3 border-b-[3px] border-ink pb-1">
          <h2>{closed ? "What became of it" : "Out now"}</h2>
          {out > 0 && !closed ? (
            <span className="flex gap-2">
              <button
                type="button"
                className={next === "count" && what === "order" ? "act" : "press"}
                {...(next === "count" && what === "order" ? { "data-next-step": "" } : {})}
                onClick={() => all("sold")}
              >
                {what === "order" ? "Handed over: all sold" : "All sold"}
              </button>
              {what === "market" ? (
                <button type="button" className="press" onClick={() => all("back")}>
                  The rest came back
                </button>
              ) : null}
            </span>
          ) : null}
        </div>
        {lines.length === 0 ? <p className="py-3 text-soft">Nothing is on it yet. Say what {what === "order" ? "is wanted" : "goes along"}.</p> : null}
        <ul>
          {lines.map((one) => (
            <LineCard key={one.sellable} line={one} order={order} onSaid={setSaid} />
          ))}
        </ul>
      </section>
      {closed ? null : changing ? (
        <Asked
          what={what}
          facts={facts}
          sellables={props.sellables}
          there={allThere}
          today={units.isoDay(order.now)}
          onKeep={save}
          onLeave={() => setChanging(false)}
        />
      ) : (
        <button type="button" className="press mt-5" onClick={() => setChanging(true)}>
          Change what {what === "order" ? "is wanted" : "goes along"}
        </button>
      )}
      <p className="unprinted mt-5 flex flex-wrap gap-2">
        <a className="press" href={`/api/workshops/${place.workshopId}/sales?order=${order.id}`} download>
          Download CSV
        </a>
        {closed ? (
          <button type="button" className="press" onClick={() => void reopen()}>
            Reopen it
          </button>
        ) : next !== "close" ? (
          <button type="button" className="press" onClick={close}>
            Close it
          </button>
        ) : null}
      </p>
      {what === "order" && (facts.whom !== "" || facts.name !== ERASED) ? <EraseCustomer orderId={order.id} onSaid={setSaid} /> : null}
      {props.notes}
      <section className="mt-6" aria-label="Entries">
        <h2 className="border-b-[3px] border-ink pb-1">Log</h2>
        <Entries log={order} newestFirst />
      </section>
    </Screen>
  );
}
