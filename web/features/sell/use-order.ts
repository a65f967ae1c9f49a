"use client";

import { linesNow, ORDER, type OrderBody, type OrderEvent, type OrderPlan, type OrderState } from "@hearth/core";
import { useMemo } from "react";
import { type EnteredOf, type Logged, useLog } from "@/log/use-log";
import { useNow } from "@/ui/units";

export interface OrderProps {
  people: { id: string; name: string }[];
  order: Logged<OrderState, OrderPlan, OrderEvent> & { number: number };
}
export type OrderEntered = EnteredOf<OrderBody>;

const ABOUT = { what: "order", subject: ORDER } as const;

/** An order or a market day as it stands, with what still waits to be sent, and the way to add to it. */
export function useOrder({ order, people }: OrderProps) {
  const now = useNow(5_000);
  const { plan } = order;
  const names = useMemo(() => new Map(people.map((item) => [item.id, item.name])), [people]);
  const log = useLog<OrderState, OrderPlan, OrderEvent, OrderBody>(ABOUT, order, `${order.number} ${plan.name}`, names);
  /** Puts an entry down where the order takes it, without waiting for the server: the device keeps it. Says why where it does not. */
  const enter = (entered: OrderEntered): string => {
    const event = { ...entered, corrects: null, happenedAt: entered.happenedAt ?? now };
    const why = ORDER.refusal({ plan, state: log.state }, event);
    if (why) return why.message;
    void log.record(entered);
    return "";
  };
  return { ...log, enter, plan, now, lines: linesNow(log.state, plan.what), number: order.number, id: order.id };
}
export type Order = ReturnType<typeof useOrder>;
