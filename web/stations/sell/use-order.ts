"use client";

import { linesNow, ORDER, type OrderBody, type OrderEvent, type OrderFacts, type OrderPlan } from "@hearth/core";
import { useMemo } from "react";
import { words } from "@/forms/fields";
import { countRule } from "@/forms/rules";
import type { Retyped } from "@/log/correction";
import { type EnteredOf, type Logged, useLog } from "@/log/use-log";
import { useNow } from "@/ui/units";

export interface OrderProps {
  people: { id: string; name: string }[];
  order: Logged<OrderFacts, OrderPlan, OrderEvent> & { number: number };
}
export type OrderEntered = EnteredOf<OrderBody>;

const ABOUT = { what: "order", subject: ORDER } as const;

/** An order or a market day as it stands, with what still waits to be sent, and the way to add to it. */
export function useOrder({ order, people }: OrderProps) {
  const now = useNow(5_000);
  const { plan } = order;
  const names = useMemo(() => new Map(people.map((one) => [one.id, one.name])), [people]);
  const log = useLog<OrderFacts, OrderPlan, OrderEvent, OrderBody>(ABOUT, order, `${order.number} ${plan.name}`, names);
  const retyped = (event: OrderEvent): Retyped | null => {
    if (event.kind === "note") return { label: "Note", rule: words(event.payload.text), body: (text: string) => ({ kind: "note", payload: { text } }) };
    if (event.kind !== "went") return null;
    return {
      label: "Packs",
      rule: countRule({ least: 1, most: 100_000, name: "packs" }, String(event.payload.packs)) as Retyped["rule"],
      body: (packs: number) => ({ kind: "went", payload: { ...event.payload, packs } }),
    };
  };
  /** Puts an entry down where the order takes it, without waiting for the server: the device keeps it. Says why where it does not. */
  const enter = (entered: OrderEntered): string => {
    const event = { ...entered, corrects: null, happenedAt: entered.happenedAt ?? now } as unknown as OrderEvent;
    const why = ORDER.refusal({ plan, facts: log.facts }, event);
    if (why) return why.message;
    void log.record(entered);
    return "";
  };
  return { ...log, enter, plan, now, lines: linesNow(log.facts, plan.what), number: order.number, id: order.id, retyped };
}
export type Order = ReturnType<typeof useOrder>;
