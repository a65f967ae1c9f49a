"use client";

import { isCounted } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { amountRule, VolumeNote } from "@/forms/amount";
import { callAction } from "@/forms/call-action";
import { Field, type FieldRule, useFields } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { saveCount } from "@/server/inventory/commands";
import type { Stock } from "@/server/inventory/shelf";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";
import type { StockedThing } from "./stocked";

/** The form of a stock count: stock on hand is set to what was counted. */
export function CountForm({ of, stock }: { of: StockedThing; stock: Stock | null }) {
  const units = useUnits();
  const router = useRouter();
  const workshop = useWorkshop();
  const [id, setId] = useState(() => v7());
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const oil = of.kind === "fragrance";
  const rules = useMemo(
    () => ({
      amount: amountRule({ name: of.name, counted: isCounted(of.kind), density: oil ? of.density : undefined }, units, "", true) as FieldRule<unknown>,
    }),
    [of, oil, units],
  );
  const fields = useFields(rules);
  const amount = fields.values.amount as Parameters<typeof VolumeNote>[0]["amount"];
  const write = (value: number) => (isCounted(of.kind) ? String(value) : units.about(value));
  const off = amount && stock ? amount.mg - stock.onHand : 0;
  const save = () => {
    const all = fields.check();
    if (!all) return;
    start(async () => {
      const outcome = await callAction(saveCount(workshop, { id, kind: of.kind, materialId: of.id, amount: (all.amount as { mg: number }).mg }));
      if (!outcome.ok) return setMessage(outcome.message);
      setMessage("");
      setId(v7());
      fields.fill({ amount: "" });
      router.refresh();
    });
  };
  return (
    <form
      ref={fields.form}
      className="sheet"
      aria-label="Count the stock"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <h2 className="mb-2">Count the stock</h2>
      <Field
        label="Found"
        {...fields.bind("amount")}
        large
        unit={isCounted(of.kind) ? "pieces" : units.mass}
        hint="Sets the stock to this amount. A shortage is taken from the oldest lot."
      />
      <VolumeNote amount={amount} density={of.density} />
      {amount && stock && off !== 0 ? (
        <p role="status" className="text-[15px]">
          That is {write(Math.abs(off))} {off < 0 ? "less" : "more"} than the {write(stock.onHand)} written down.
        </p>
      ) : null}
      <FormMessage>{message}</FormMessage>
      <button type="submit" className="press mt-2" disabled={busy}>
        Save count
      </button>
    </form>
  );
}
