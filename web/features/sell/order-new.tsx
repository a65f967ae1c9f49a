"use client";

import type { Sellable } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { useDraft } from "@/catalogue/draft";
import { callAction } from "@/forms/call-action";
import { useFields } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { beginOrder } from "@/server/sales/commands";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { Aside, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { Lines, linesOf, type Typed } from "./lines";
import { HeadFields, headRules } from "./order-asked";

interface NewProps {
  what: "order" | "market";
  sellables: Sellable[];
  there: Record<string, number>;
  today: string;
  /** What markets before this one took, for a start. */
  like: { name: string; lines: Typed[] } | null;
}

/** Takes an order, or plans a market day. */
export function NewOrder({ what, sellables, there, today, like }: NewProps) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const [orderId] = useState(() => v7());
  const [lines, setLines] = useState<Typed[]>([{ sellable: "", packs: 1 }]);
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const rules = useMemo(() => headRules(what, today, units), [what, today, units]);
  const fields = useFields(rules);
  const draft = useDraft(`order:${what}`, { ...fields.typed, lines: JSON.stringify(lines) }, ({ lines: kept, ...rest }) => {
    fields.fill(rest);
    if (kept) setLines(JSON.parse(kept) as Typed[]);
  });
  const save = () => {
    const all = fields.check();
    if (!all) return;
    start(async () => {
      const plan = { format: 1 as const, what, ...all, lines: linesOf(lines, sellables) };
      const outcome = await callAction(beginOrder(workshop, { orderId, plan }));
      if (!outcome.ok) {
        fields.refuse(Object.fromEntries(Object.entries(outcome.fields).map(([key, messages]) => [key.replace("plan.", ""), messages])));
        return setMessage(outcome.message);
      }
      draft.drop();
      router.push(`/sell/${outcome.value.id}`);
    });
  };
  return (
    <PageLayout
      title={what === "order" ? "New order" : "Plan a market day"}
      lead={what === "order" ? "Products, customer and date." : "Place, date, and what to take."}
      actions={
        <button type="submit" form="order-form" className="action-button" data-next-step disabled={busy}>
          {busy ? "Writing" : what === "order" ? "Save order" : "Save market day"}
        </button>
      }
      side={
        <>
          {draft.offer}
          <Aside title="Scheduled backwards from the date">What is short goes on the plan for this date: it must be poured, cured and inspected by then.</Aside>
          <Aside title="Hot markets">The melt point of the wax decides whether a candle can stand at a hot market or be shipped in summer.</Aside>
          <Aside title="Personal data">Store only the personal data that you need. Your country's rules on personal data apply.</Aside>
        </>
      }
    >
      <form
        id="order-form"
        ref={fields.form}
        className="sheet max-w-[760px]"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <HeadFields fields={fields} what={what} today={today} focus />
        <h2 className="mt-3 mb-2">{what === "order" ? "Demand" : "Products"}</h2>
        {like && lines.every((line) => line.sellable === "") ? (
          <button type="button" className="press mb-3" onClick={() => setLines(like.lines)}>
            As at {like.name}
          </button>
        ) : null}
        <Lines lines={lines} onLines={setLines} sellables={sellables} there={there} what={what} />
        <FormMessage>{message}</FormMessage>
      </form>
    </PageLayout>
  );
}
