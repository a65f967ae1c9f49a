"use client";

import { type LineNow, WENT, WENT_WORDS, type Went } from "@hearth/core";
import { useState } from "react";
import { Link } from "@/ui/address";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import type { LineShort, OrderShown, Supplies } from "./order-model";
import type { Order } from "./use-order";

const VERBS: Record<Went, string> = { sold: "Sold", given: "Given away", second: "Sold as second", back: "Back" };

/** One thing of it: how many are out, and what became of them, by one tap each. */
function LineCard({ line, order, onSaid }: { line: LineNow; order: Order; onSaid: (text: string) => void }) {
  const units = useUnits();
  const [many, setMany] = useState("1");
  const packs = Math.max(1, Number.parseInt(many, 10) || 1);
  const closed = order.state.closed !== null;
  const put = (to: Went) => {
    onSaid(order.enter({ kind: "packsResolved", payload: { sellable: line.sellable, name: line.name, packs, to, each: null, why: "" } }));
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
              line.asked > 0 ? `${line.asked} ${order.plan.what === "order" ? "ordered" : "to take"}` : "",
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
              className={to === "sold" ? "action-button !min-h-[56px] text-[18px]" : press({ size: "gloved" })}
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

/** The packs that can go out now. */
export function ToTakeOut({ order, going, there }: { order: Order; going: OrderShown["going"]; there: Supplies["there"] }) {
  return (
    <section className="sheet mb-5" aria-label="To ship">
      <h2>{order.plan.what === "order" ? "Ready to ship" : "To bring"}</h2>
      <ul>
        {going.map(({ line, packs }) => {
          const packed = Math.min(packs, there[line.sellable]?.packed ?? 0);
          return (
            <li key={line.sellable} className="flex items-baseline gap-3 border-b border-line py-1">
              <span className="figure text-[26px]">{packs}</span>
              <span className="min-w-0 font-semibold">{line.name}</span>
              <span className="text-[15px] text-soft">
                {packed === packs ? "packed" : packed > 0 ? `${packed} packed, ${packs - packed} to be packed` : "to be packed"}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** What the order is short of, and the way to put it on the plan. */
export function Short({ shortage, busy, onPlan }: { shortage: readonly LineShort[]; busy: boolean; onPlan: (line: LineShort) => void }) {
  return (
    <section className="mb-5" aria-label="Short">
      {shortage.map((line) => {
        const covered = line.planned >= line.short;
        return (
          <div
            key={line.line.sellable}
            className={`flex flex-wrap items-center gap-3 border-l-[6px] px-3 py-2 ${covered ? "border-line" : "border-hot bg-hot-fill"}`}
          >
            <p className="min-w-0 flex-1">
              <strong>
                {covered ? "" : "▲ "}Short {line.short} × {line.line.name}
              </strong>
              : {line.stock} in stock, {line.line.shortage} needed{line.planned > 0 ? `, ${line.planned} on the plan` : ""}.
            </p>
            {covered ? (
              <Link className="press" href="/plan/wanted">
                See the plan
              </Link>
            ) : (
              <button type="button" className="press" disabled={busy} onClick={() => onPlan(line)} aria-label={`Put on the plan: ${line.line.name}`}>
                Put on the plan
              </button>
            )}
          </div>
        );
      })}
    </section>
  );
}

/** The packs that are out, and the form for what became of them. */
export function OutNow({ order, state, onSaid }: { order: Order; state: OrderShown; onSaid: (text: string) => void }) {
  const { what } = order.plan;
  const { lines } = order;
  const isNext = state.next === "count" && what === "order";
  const all = (to: Went) => {
    for (const line of lines)
      if (line.there > 0) {
        const why = order.enter({ kind: "packsResolved", payload: { sellable: line.sellable, name: line.name, packs: line.there, to, each: null, why: "" } });
        if (why) return onSaid(why);
      }
    onSaid("");
  };
  return (
    <section aria-label="Out">
      <div className="flex flex-wrap items-end justify-between gap-3 border-b-[3px] border-ink pb-1">
        <h2>{state.isClosed ? "Result" : what === "order" ? "Shipped" : "At market"}</h2>
        {state.out > 0 && !state.isClosed ? (
          <span className="flex gap-2">
            <button type="button" className={isNext ? "action-button" : "press"} {...(isNext ? { "data-next-step": "" } : {})} onClick={() => all("sold")}>
              {what === "order" ? "Handed over, all sold" : "All sold"}
            </button>
            {what === "market" ? (
              <button type="button" className="press" onClick={() => all("back")}>
                Return the rest to stock
              </button>
            ) : null}
          </span>
        ) : null}
      </div>
      {lines.length === 0 ? <p className="py-3 text-soft">Nothing is on it yet. Say what {what === "order" ? "is wanted" : "goes along"}.</p> : null}
      <ul>
        {lines.map((line) => (
          <LineCard key={line.sellable} line={line} order={order} onSaid={onSaid} />
        ))}
      </ul>
    </section>
  );
}
