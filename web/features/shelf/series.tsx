"use client";

import { seriesOf } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { callAction } from "@/forms/call-action";
import { Field, useFields, words } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { saveSeries } from "@/server/inventory/commands";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { press } from "@/ui/variants";

interface NamedWick {
  id: string;
  name: string;
  kind: string;
  size: string;
  series: string;
}

/** The series of all wicks that are shown, named in one go: sizes are ordered within a series, and not compared between two. */
export function WickSeries({ wicks }: { wicks: NamedWick[] }) {
  const [open, setOpen] = useState(false);
  const names = [...new Set(wicks.map(seriesOf))];
  return (
    <div className="py-2">
      <p className="text-[15px] text-soft">
        {names.length === 1 ? "1 series" : `${names.length} series`}: {names.join(", ")}. Sizes are compared within a series only.{" "}
        <button type="button" className={press({ size: "small" })} aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Close" : "Name the series"}
        </button>
      </p>
      {open ? <SeriesForm wicks={wicks} onDone={() => setOpen(false)} /> : null}
    </div>
  );
}

function SeriesForm({ wicks, onDone }: { wicks: NamedWick[]; onDone: () => void }) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const rules = useMemo(() => Object.fromEntries(wicks.map((wick) => [wick.id, words(seriesOf(wick), 120)])), [wicks]);
  const fields = useFields(rules);
  return (
    <form
      ref={fields.form}
      className="sheet mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        const all = fields.check();
        if (!all) return;
        start(async () => {
          const series = wicks.map((wick) => ({ id: wick.id, series: String(all[wick.id] ?? "").trim() }));
          const out = await callAction(saveSeries(workshop, { series }));
          if (!out.ok) return setMessage(out.message);
          onDone();
          router.refresh();
        });
      }}
    >
      <div className="grid gap-x-4 sm:grid-cols-2">
        {wicks.map((wick) => (
          <Field key={wick.id} label={wick.name} {...fields.bind(wick.id)} hint={[wick.kind, wick.size].filter(Boolean).join(", ")} />
        ))}
      </div>
      <FormMessage>{message}</FormMessage>
      <button type="submit" className="action-button mt-2" disabled={busy}>
        {busy ? "Saving" : "Save the series"}
      </button>
    </form>
  );
}
