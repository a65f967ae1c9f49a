"use client";

import { bad, dayAt, good, isCounted, parseDay, parseVolume } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { amountRule, type Measured, VolumeNote } from "@/forms/amount";
import { callAction } from "@/forms/call-action";
import { Field, type FieldRule, orNothing, useFields, words } from "@/forms/fields";
import { moneyRule } from "@/forms/rules";
import { parseWhen } from "@/forms/when";
import { useWorkshop } from "@/log/workshop";
import { saveLot } from "@/server/inventory/commands";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { type Formats, useNow, useUnits } from "@/ui/units";
import { type StockedThing, useDensity } from "./stocked";

/** Reads a day, or a day and a time, in the workshop's own zone and as it writes them. */
function parseReceived(text: string, now: string, units: Formats) {
  const day = parseDay(text, dayAt(now, units.zone), units.locale);
  if (day) return good({ receivedOn: day, receivedAt: null });
  const read = parseWhen(text, now, units.zone, units.locale);
  if (read.ok && read.value) return good({ receivedOn: dayAt(read.value, units.zone), receivedAt: read.value });
  return bad("not-understood", `Give the day, like ${units.date(now)}, or with its time: ${units.date(now)} ${units.clock(now)}.`);
}

/** A delivery: how much came, what it cost, and the supplier's code of it. */
export function LotForm({ of }: { of: StockedThing }) {
  const units = useUnits();
  const router = useRouter();
  const workshop = useWorkshop();
  const now = useNow(30_000);
  const [id, setId] = useState(() => v7());
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const density = useDensity(of);
  const oil = of.kind === "fragrance";
  const today = units.date(now);
  const rules = useMemo(() => {
    const measured: Measured = { name: of.name, counted: isCounted(of.kind), density: oil ? density.value : undefined };
    return {
      amount: amountRule(measured, units) as FieldRule<unknown>,
      cost: orNothing(moneyRule(units)) as FieldRule<unknown>,
      listCost: orNothing(moneyRule(units)) as FieldRule<unknown>,
      code: words("", 80) as FieldRule<unknown>,
      receivedOn: {
        initial: today,
        parse: (text: string) => parseReceived(text, now, units),
      } as FieldRule<unknown>,
    };
  }, [of, oil, density.value, units, today, now]);
  const fields = useFields(rules);
  const amount = fields.values.amount as Parameters<typeof VolumeNote>[0]["amount"];
  const volumeTyped = oil && parseVolume(fields.text("amount")) !== null;
  const save = () => {
    const all = fields.check();
    if (!all) return;
    start(async () => {
      const { mg } = all.amount as { mg: number };
      const outcome = await callAction(
        saveLot(workshop, {
          id,
          kind: of.kind,
          materialId: of.id,
          expectedVersion: null,
          amount: mg,
          cost: all.cost,
          listCost: all.listCost,
          code: all.code,
          ...(all.receivedOn as { receivedOn: string; receivedAt: string | null }),
        }),
      );
      if (!outcome.ok) {
        fields.refuse(outcome.fields);
        return setMessage(outcome.message);
      }
      setMessage("");
      setId(v7());
      fields.fill({ amount: "", cost: "", listCost: "", code: "" });
      router.refresh();
    });
  };
  return (
    <form
      ref={fields.form}
      className="sheet"
      aria-label="Receive stock"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <h2 className="mb-2">Receive stock</h2>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1">
        <Field
          label="Amount"
          {...fields.bind("amount")}
          large
          unit={isCounted(of.kind) ? "pieces" : units.mass}
          hint={oil ? units.say("Weight, or volume like {100 ml|4 fl oz}.") : undefined}
        />
        <Field label="Cost of the lot" {...fields.bind("cost")} large unit={units.currency} hint="Leave empty if you do not know it." />
        {volumeTyped ? (
          <div className="col-span-2">
            <Field
              label={`${units.densityName} of ${of.name}`}
              name="density"
              value={density.text}
              onValue={density.setText}
              onLeave={() => undefined}
              error={density.fault}
              unit={units.densityUnit}
              hint="From the supplier. It converts a volume into a weight."
            />
            <VolumeNote amount={amount} density={density.value} />
          </div>
        ) : null}
        <Field label="Before discount" {...fields.bind("listCost")} unit={units.currency} hint="If it was bought cheaper than listed." />
        <Field label="Supplier's lot code" {...fields.bind("code")} />
        <Field label="Received on" {...fields.bind("receivedOn")} hint="A day. Add a time if you counted stock on that day." />
      </div>
      <FormMessage>{message}</FormMessage>
      <button type="submit" className="action-button mt-2" data-next-step disabled={busy}>
        Add to stock
      </button>
    </form>
  );
}
