"use client";

import type { PlannedPot } from "@hearth/core";
import { dayAt } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { Chooser } from "@/forms/chooser";
import { Field, useFields, words } from "@/forms/fields";
import { countRule, dayRule } from "@/forms/rules";
import { useWorkshop } from "@/log/workshop";
import { saveDemand, takeOff } from "@/server/planning/commands";
import type { DemandRow } from "@/server/planning/planning";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { toast } from "@/ui/toast";
import { useNow, useUnits } from "@/ui/units";

/** Returns how a line stands: the worst of the pots that it is in. */
export function standingOf(line: DemandRow, pots: readonly PlannedPot[]) {
  const dayPots = pots.filter((pot) => pot.lines.some((item) => item.id === line.id));
  const worst = dayPots.find((pot) => pot.is === "late") ?? dayPots.find((pot) => pot.is === "minimum") ?? dayPots[0] ?? null;
  return { days: [...new Set(dayPots.flatMap((pot) => (pot.day ? [pot.day] : [])))], worst };
}

/** The list of what must be ready and by when, and the line to add to it. */
export function WantedList({ lines, choices, pots }: { lines: DemandRow[]; choices: { id: string; name: string }[]; pots: PlannedPot[] }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const today = dayAt(useNow(60_000), units.zone);
  const [product, setProduct] = useState("");
  const [wrong, setWrong] = useState("");
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  /** The line that is being changed. */
  const [changing, setChanging] = useState<DemandRow | null>(null);
  const rules = useMemo(
    () => ({ count: countRule({ least: 1, most: 100_000, name: "pieces" }), on: dayRule(today, units), note: words("", 200) }),
    [today, units],
  );
  const fields = useFields(rules);
  const options = useMemo(() => choices.map((choice) => ({ value: choice.id, name: choice.name })), [choices]);
  const clear = () => {
    setChanging(null);
    setProduct("");
    fields.fill({ count: "", note: "" });
  };
  const save = () => {
    const all = fields.check();
    setWrong(product === "" ? "Choose a product." : "");
    if (!all || product === "") return;
    start(async () => {
      const out = await callAction(
        saveDemand(workshop, {
          id: changing?.id ?? v7(),
          productId: product,
          count: all.count + (changing?.made ?? 0),
          wantedOn: all.on,
          note: all.note,
          version: changing?.version ?? null,
        }),
      );
      if (!out.ok) return setMessage(out.message);
      setMessage("");
      clear();
      router.refresh();
      fields.form.current?.querySelector<HTMLElement>("[role=combobox]")?.focus();
    });
  };
  const off = async (line: DemandRow, isDeleted: boolean) => {
    const out = await callAction(takeOff(workshop, { ids: [line.id], gone: isDeleted }));
    if (!out.ok) return toast(out.message);
    router.refresh();
    if (isDeleted) toast(`${line.productName} is removed.`, { action: { label: "Undo", onClick: () => void off(line, false) } });
  };
  return (
    <section aria-label="Demand">
      <form
        ref={fields.form}
        className="sheet unprinted grid grid-cols-2 items-start gap-x-4 sm:grid-cols-[minmax(0,1.4fr)_110px_150px_minmax(0,1fr)_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <div className="max-sm:col-span-2">
          <Chooser label="Product" value={product} options={options} onValue={setProduct} error={wrong} />
        </div>
        <Field label="Candles" {...fields.bind("count")} inputMode="numeric" />
        <Field label="Due" {...fields.bind("on")} placeholder="for stock" />
        <Field label="For" {...fields.bind("note")} placeholder="order, market" />
        <div className="mt-[26px] flex gap-2">
          <button type="submit" className="action-button" disabled={busy}>
            {changing ? "Save" : "Add"}
          </button>
          {changing ? (
            <button type="button" className="press" onClick={clear}>
              Cancel
            </button>
          ) : null}
        </div>
        <div className="col-span-full">
          <FormMessage>{message}</FormMessage>
          <Link href="/shelf/file?part=wanted" className="text-[15px]">
            Paste from a spreadsheet, or import a file
          </Link>
        </div>
      </form>
      {lines.length === 0 ? (
        <p className="mt-6 text-soft">
          {choices.length === 0 ? (
            <>
              Demand needs a product. <Link href="/products/new">Make a product</Link>, and come back.
            </>
          ) : (
            "The list is empty. Enter a product, how many and by when."
          )}
        </p>
      ) : (
        <ul className="mt-4" aria-label="Lines">
          {lines.map((line) => {
            const { days, worst } = standingOf(line, pots);
            return (
              <li
                key={line.id}
                className="grid grid-cols-[64px_minmax(0,1fr)_auto] items-center gap-x-4 border-b border-line py-1 sm:grid-cols-[72px_minmax(0,1.2fr)_minmax(0,1fr)_auto]"
              >
                <span className="figure text-right text-[26px] leading-none">{line.count}</span>
                <span className="min-w-0">
                  <strong className="break-words">{line.productName || "an archived product"}</strong>
                  <span className="block text-[14px] text-soft">
                    {line.wantedOn ? `by ${units.onDay(line.wantedOn)}` : "stock to keep"}
                    {line.note ? `, ${line.note}` : ""}
                    {line.made > 0 ? `, ${line.made} of ${line.asked} poured` : ""}
                  </span>
                </span>
                <span className="text-[15px] max-sm:col-start-2">
                  {worst === null ? (
                    <span className="font-semibold text-hot">▲ cannot be planned</span>
                  ) : (
                    <>
                      {days.length > 0 ? `pour ${days.map((day) => units.onDay(day)).join(", ")}` : "no free day"}
                      {worst.is === "ready" ? <span className="block font-semibold text-inside">✓ ready</span> : null}
                      {worst.is === "minimum" ? <span className="block font-semibold text-hot">▲ minimum cure only</span> : null}
                      {worst.is === "late" ? (
                        <span className="block font-semibold text-hot">
                          ▲ late by {worst.short} {worst.short === 1 ? "day" : "days"}
                        </span>
                      ) : null}
                    </>
                  )}
                </span>
                <span className="unprinted flex gap-2 max-sm:col-start-3 max-sm:row-start-1">
                  <button
                    type="button"
                    className="press"
                    aria-label={`Change ${line.productName}, ${line.count}`}
                    onClick={() => {
                      setChanging(line);
                      setProduct(line.productId);
                      fields.fill({ count: String(line.count), on: line.wantedOn ? units.onDate(line.wantedOn) : "", note: line.note });
                      fields.form.current?.querySelector<HTMLElement>("[name=count]")?.focus();
                    }}
                  >
                    Change
                  </button>
                  <button
                    type="button"
                    className="press"
                    aria-label={`Remove ${line.productName}, ${line.count} from the list`}
                    onClick={() => void off(line, true)}
                  >
                    ✕
                  </button>
                </span>
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}
