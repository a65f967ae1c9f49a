"use client";

import type { OrderKind, OrderState, Sellable } from "@hearth/core";
import { useMemo, useState } from "react";
import { Field, named, untouched, useFields, words } from "@/forms/fields";
import { dayRule } from "@/forms/rules";
import { type Formats, useUnits } from "@/ui/units";
import { Lines, linesOf, type Typed } from "./lines";

type Head = Pick<OrderState, "name" | "whom" | "wantedOn">;

/** Returns whose order it is or which market, by when, and how to reach them. A day that is over stays as it was. */
export const headRules = (what: OrderKind, today: string, units: Formats, first: Head = { name: "", whom: "", wantedOn: null }) => ({
  name: named(what === "order" ? "the order" : "the market day", first.name),
  whom: words(first.whom, 200),
  wantedOn: untouched({ ...dayRule(today, units), initial: first.wantedOn ? units.onDate(first.wantedOn) : "" }, first.wantedOn),
});

/** The fields of an order's name, day and contact. */
export function HeadFields({
  fields,
  what,
  today,
  focus = false,
}: {
  fields: ReturnType<typeof useFields<ReturnType<typeof headRules>>>;
  what: OrderKind;
  today: string;
  focus?: boolean;
}) {
  const units = useUnits();
  return (
    <>
      <div className="grid gap-x-4 sm:grid-cols-2">
        <Field label={what === "order" ? "Customer" : "Market"} {...fields.bind("name")} autoFocus={focus} />
        <Field label={what === "order" ? "Due" : "On"} {...fields.bind("wantedOn")} hint={`Like ${units.onDate(today)}. Leave empty if there is no date.`} />
      </div>
      <Field label={what === "order" ? "Contact" : "Remarks"} {...fields.bind("whom")} />
    </>
  );
}

interface AskedProps {
  what: OrderKind;
  state: OrderState;
  sellables: Sellable[];
  there: Record<string, number>;
  today: string;
  onKeep: (asked: Head & Pick<OrderState, "lines">) => void;
  onLeave: () => void;
}

/** Changes what is asked: its name and day, and its lines. */
export function Asked({ what, state, sellables, there, today, onKeep, onLeave }: AskedProps) {
  const units = useUnits();
  const [lines, setLines] = useState<Typed[]>(state.lines.map(({ sellable, packs }) => ({ sellable, packs })));
  const { name, whom, wantedOn } = state;
  const fields = useFields(useMemo(() => headRules(what, today, units, { name, whom, wantedOn }), [what, today, units, name, whom, wantedOn]));
  return (
    <form
      ref={fields.form}
      className="sheet mt-5"
      aria-label="Edit the order"
      onSubmit={(event) => {
        event.preventDefault();
        const all = fields.check();
        if (all) onKeep({ ...all, lines: linesOf(lines, sellables, state.lines) });
      }}
    >
      <HeadFields fields={fields} what={what} today={today} />
      <Lines lines={lines} onLines={setLines} sellables={sellables} there={there} what={what} />
      <p className="mt-3 flex gap-2">
        <button type="submit" className="action-button">
          Save changes
        </button>
        <button type="button" className="press" onClick={onLeave}>
          Cancel
        </button>
      </p>
    </form>
  );
}
