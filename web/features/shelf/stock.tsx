"use client";

import { isCounted } from "@hearth/core";
import { useState } from "react";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { saveCount, saveLot } from "@/server/inventory/commands";
import type { Stock, StockHistory } from "@/server/inventory/shelf";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";
import { Bottles } from "./bottles";
import { CountForm } from "./count-form";
import { LotForm } from "./lot-form";
import type { StockedThing } from "./stocked";

interface StockProps {
  of: StockedThing;
  stock: Stock | null;
  history: StockHistory;
  low: number | null;
}
/** Sends what was turned back or put back, says where it cannot be, and reads the page again. */
type Turn = (work: ReturnType<typeof saveLot | typeof saveCount>) => Promise<void>;

/** Writes amounts of a thing: pieces of what is counted, or a weight. */
function useAmounts(stockedThing: StockedThing): (value: number) => string {
  const units = useUnits();
  return (value) => (isCounted(stockedThing.kind) ? String(value) : units.about(value));
}

/** How much is on hand, when it is low, and what was drawn so far. */
function OnHand({ of, stock, history, low }: StockProps) {
  const units = useUnits();
  const counted = isCounted(of.kind);
  return (
    <div className="mb-5 flex flex-wrap items-baseline gap-x-6">
      <p>
        <span className={`figure text-[64px] leading-none ${stock && low !== null && stock.onHand < low ? "text-hot" : ""}`}>
          {stock ? (counted ? stock.onHand : units.bulk(stock.onHand)) : "–"}
        </span>{" "}
        <span className="text-soft">{stock ? "on hand" : "no stock recorded"}</span>
      </p>
      {low !== null ? (
        <p className={stock && stock.onHand < low ? "font-semibold text-hot" : "text-soft"}>
          {stock && stock.onHand < low ? "▲ " : ""}low below {counted ? low : units.bulk(low)}
        </p>
      ) : null}
      {history.used.batches > 0 ? (
        <p className="text-soft">
          {history.used.batches} {history.used.batches === 1 ? "batch" : "batches"} drew {counted ? history.used.amount : units.bulk(history.used.amount)}
        </p>
      ) : null}
    </div>
  );
}

/** The lots that were received, what is left of each, and taking one back. */
function Lots({ of, stock, history, turn }: StockProps & { turn: Turn }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const write = useAmounts(of);
  const leftOf = (id: string) => stock?.left.find((item) => item.lotId === id)?.amount ?? 0;
  return (
    <section className="mt-7" aria-label="Lots">
      <h2 className="border-b-[3px] border-ink pb-1">Lots</h2>
      {history.lots.length === 0 ? <p className="py-3 text-soft">None yet. Each delivery is a lot with its own cost; batches use the oldest first.</p> : null}
      <ul>
        {history.lots.map((lot) => (
          <li key={lot.id} className={`flex flex-wrap items-center gap-x-5 border-b border-line py-2 ${lot.withdrawn ? "text-soft line-through" : ""}`}>
            <span className="w-[110px]">{lot.receivedOn}</span>
            <span className="min-w-[120px] flex-1">{lot.code || <span className="text-soft">no lot code</span>}</span>
            <span className="figure w-[110px] text-right text-[18px]">{write(lot.amount)}</span>
            <span className="w-[110px] text-right">{lot.cost === null ? <span className="text-soft">no cost</span> : units.money(lot.cost)}</span>
            <span className="w-[130px] text-right">
              <span className="figure text-[18px]">{write(lot.withdrawn ? 0 : leftOf(lot.id))}</span> <span className="text-soft">left</span>
            </span>
            <button
              type="button"
              className="press"
              aria-label={`${lot.withdrawn ? "Restore" : "Delete"} the lot ${lot.code || lot.receivedOn}`}
              onClick={() =>
                turn(
                  saveLot(workshop, {
                    id: lot.id,
                    kind: of.kind,
                    materialId: of.id,
                    expectedVersion: lot.version,
                    amount: lot.amount,
                    cost: lot.cost,
                    code: lot.code,
                    receivedOn: lot.receivedOn,
                    withdrawn: !lot.withdrawn,
                  }),
                )
              }
            >
              {lot.withdrawn ? "Restore" : "Delete"}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The counts of the stock, and taking one back. */
function Counts({ of, history, turn }: Pick<StockProps, "of" | "history"> & { turn: Turn }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const write = useAmounts(of);
  return history.counts.length > 0 ? (
    <section className="mt-7" aria-label="Counts">
      <h2 className="border-b-[3px] border-ink pb-1">Counts</h2>
      <ul>
        {history.counts.map((count) => (
          <li key={count.id} className={`flex flex-wrap items-center gap-x-5 border-b border-line py-2 ${count.withdrawn ? "text-soft line-through" : ""}`}>
            <span className="min-w-[160px] flex-1">{units.dayClock(count.at)}</span>
            <span className="figure text-[18px]">{write(count.amount)}</span>
            <button
              type="button"
              className="press"
              aria-label={`${count.withdrawn ? "Restore" : "Delete"} the count of ${write(count.amount)}`}
              onClick={() => turn(saveCount(workshop, { id: count.id, kind: of.kind, materialId: of.id, amount: count.amount, withdrawn: !count.withdrawn }))}
            >
              {count.withdrawn ? "Restore" : "Delete"}
            </button>
          </li>
        ))}
      </ul>
    </section>
  ) : null;
}

/** The stock of one thing: its lots with their prices, and its counts. */
export function StockPanel(props: StockProps) {
  const { of, stock, history } = props;
  const router = useRouter();
  const [message, setMessage] = useState("");
  const turn: Turn = async (work) => {
    const outcome = await callAction<unknown>(work);
    setMessage(outcome.ok ? "" : outcome.message);
    router.refresh();
  };
  return (
    <>
      <OnHand {...props} />
      <div className="grid grid-cols-1 items-start gap-6 xl:grid-cols-2">
        <LotForm of={of} />
        <div className="grid gap-6">
          <CountForm of={of} stock={stock} />
          {of.kind === "fragrance" ? <Bottles of={of} /> : null}
        </div>
      </div>
      <FormMessage className="mt-3">{message}</FormMessage>
      <Lots {...props} turn={turn} />
      <Counts of={of} history={history} turn={turn} />
    </>
  );
}
