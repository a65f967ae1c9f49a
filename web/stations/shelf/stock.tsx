"use client";

import { bad, bottlesFor, good, isCounted, parseDensity, parseMoney, parseVolume, type StockedKind, writeNumber } from "@hearth/core";
import { DateTime } from "luxon";
import { useRouter } from "next/navigation";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { amountRule, type Measured, VolumeNote } from "@/forms/amount";
import { Field, type FieldRule, orNothing, useFields, words } from "@/forms/fields";
import { usePlace } from "@/log/place";
import type { Stock, StockHistory } from "@/server/shelf";
import { useNow, useUnits } from "@/ui/units";
import { saveCount, saveLot } from "./commands";

export interface StockedThing {
  kind: StockedKind;
  id: string;
  name: string;
  density: number | null;
}

/** Reads a day, or a day and a time, in the workshop's own zone. */
function parseDay(text: string, zone: string) {
  const match = /^(\d{4}-\d\d-\d\d)(?:[ T](\d{1,2}:\d\d))?$/.exec(text.trim());
  const at = match ? DateTime.fromFormat(`${match[1]} ${(match[2] ?? "00:00").padStart(5, "0")}`, "yyyy-LL-dd HH:mm", { zone }) : null;
  return at?.isValid
    ? good({ receivedOn: match?.[1] ?? "", receivedAt: match?.[2] ? at.toUTC().toISO() : null })
    : bad("Give the day, like 2026-03-14, or with its time: 2026-03-14 15:30.");
}

/** Reads a density that may be missing; keeps what was typed. */
function useDensity(of: StockedThing) {
  const [text, setText] = useState(of.density === null ? "" : writeNumber(of.density / 1e6, 4));
  const read = text.trim() === "" ? null : parseDensity(text);
  return { text, setText, value: read?.ok ? read.value : null, fault: read && !read.ok ? read.message : "" };
}

function LotForm({ of }: { of: StockedThing }) {
  const units = useUnits();
  const router = useRouter();
  const place = usePlace();
  const now = useNow();
  const [id, setId] = useState(() => v7());
  const [said, setSaid] = useState("");
  const [busy, start] = useTransition();
  const density = useDensity(of);
  const oil = of.kind === "fragrance";
  const today = units.isoDay(now);
  const rules = useMemo(() => {
    const measured: Measured = { name: of.name, counted: isCounted(of.kind), density: oil ? density.value : undefined };
    return {
      amount: amountRule(measured, units) as FieldRule<unknown>,
      cost: orNothing<number>({ initial: "", parse: (text) => parseMoney(text, units.currency ?? "EUR") }) as FieldRule<unknown>,
      code: words("", 80) as FieldRule<unknown>,
      receivedOn: {
        initial: today,
        parse: (text: string) => parseDay(text, units.zone),
      } as FieldRule<unknown>,
    };
  }, [of, oil, density.value, units, today]);
  const fields = useFields(rules);
  const amount = fields.values.amount as Parameters<typeof VolumeNote>[0]["amount"];
  const volumeTyped = oil && parseVolume(fields.text("amount")) !== null;
  const save = () => {
    const all = fields.check();
    if (!all) return;
    start(async () => {
      const { mg } = all.amount as { mg: number };
      const outcome = await saveLot(place, {
        id,
        kind: of.kind,
        materialId: of.id,
        expectedVersion: null,
        amount: mg,
        cost: all.cost,
        code: all.code,
        ...(all.receivedOn as { receivedOn: string; receivedAt: string | null }),
      }).catch(() => null);
      if (!outcome) return setSaid("The program cannot be reached just now. Nothing you typed is lost: try again.");
      if (!outcome.ok) {
        fields.refuse(outcome.fields);
        return setSaid(outcome.message);
      }
      setSaid("");
      setId(v7());
      fields.fill({ amount: "", cost: "", code: "" });
      router.refresh();
    });
  };
  return (
    <form
      ref={fields.form}
      className="sheet"
      aria-label="Receive a lot"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <h2 className="mb-2">Receive a lot</h2>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1">
        <Field
          label="Amount"
          {...fields.bind("amount")}
          large
          unit={isCounted(of.kind) ? "pieces" : units.mass}
          hint={oil ? "Weight, or volume like 4 fl oz." : undefined}
        />
        <Field label="What the lot cost" {...fields.bind("cost")} large unit={units.currency} hint="Leave empty where it is not known." />
        {volumeTyped ? (
          <div className="col-span-2">
            <Field
              label={`Density of ${of.name}`}
              name="density"
              value={density.text}
              onValue={density.setText}
              onLeave={() => undefined}
              error={density.fault}
              unit="g/ml"
              hint="From the supplier's sheet: a volume is no weight without it."
            />
            <VolumeNote amount={amount} density={density.value} />
          </div>
        ) : null}
        <Field label="Supplier's lot code" {...fields.bind("code")} />
        <Field label="Received on" {...fields.bind("receivedOn")} hint="A day; with a time where a count of that day matters." />
      </div>
      {said ? (
        <p role="alert" className="mt-1 font-semibold text-hot">
          ▲ {said}
        </p>
      ) : null}
      <button type="submit" className="act mt-2" data-next-step disabled={busy}>
        Put it in stock
      </button>
    </form>
  );
}

function CountForm({ of, stock }: { of: StockedThing; stock: Stock | null }) {
  const units = useUnits();
  const router = useRouter();
  const place = usePlace();
  const [said, setSaid] = useState("");
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
      const outcome = await saveCount(place, { id: v7(), kind: of.kind, materialId: of.id, amount: (all.amount as { mg: number }).mg }).catch(() => null);
      if (!outcome) return setSaid("The program cannot be reached just now. Nothing you typed is lost: try again.");
      if (!outcome.ok) return setSaid(outcome.message);
      setSaid("");
      fields.fill({ amount: "" });
      router.refresh();
    });
  };
  return (
    <form
      ref={fields.form}
      className="sheet"
      aria-label="Count what is there"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <h2 className="mb-2">Count what is there</h2>
      <Field
        label="Found"
        {...fields.bind("amount")}
        large
        unit={isCounted(of.kind) ? "pieces" : units.mass}
        hint="Sets the stock to this, now. What is missing is taken from the oldest lot."
      />
      <VolumeNote amount={amount} density={of.density} />
      {amount && stock && off !== 0 ? (
        <p role="status" className="text-[15px]">
          That is {write(Math.abs(off))} {off < 0 ? "less" : "more"} than the {write(stock.onHand)} written down.
        </p>
      ) : null}
      {said ? (
        <p role="alert" className="mt-1 font-semibold text-hot">
          ▲ {said}
        </p>
      ) : null}
      <button type="submit" className="press mt-2" disabled={busy}>
        Set the stock to it
      </button>
    </form>
  );
}

/** How many bottles of a size an amount of oil fills or needs. */
function Bottles({ of }: { of: StockedThing }) {
  const units = useUnits();
  const density = useDensity(of);
  const rules = useMemo(
    () => ({
      need: amountRule({ name: of.name, counted: false, density: density.value }, units, "1 fl oz") as FieldRule<unknown>,
      size: {
        initial: "10 ml",
        parse: (text: string) => parseVolume(text) ?? { ok: false as const, message: "Type the bottle's volume, like 10 ml." },
      } as FieldRule<unknown>,
    }),
    [of.name, density.value, units],
  );
  const fields = useFields(rules);
  const need = fields.values.need as Parameters<typeof VolumeNote>[0]["amount"];
  const size = fields.values.size as { ml: number } | undefined;
  return (
    <form ref={fields.form} className="sheet" aria-label="Volume and bottles" onSubmit={(event) => event.preventDefault()}>
      <h2 className="mb-2">Volume and bottles</h2>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1">
        <Field label="This much oil" {...fields.bind("need")} hint="A weight, or a volume like 4 fl oz." />
        <Field label="in bottles of" {...fields.bind("size")} />
        {of.density === null ? (
          <Field
            label="Density"
            name="bottle-density"
            value={density.text}
            onValue={density.setText}
            onLeave={() => undefined}
            error={density.fault}
            unit="g/ml"
            hint="From the supplier's sheet."
          />
        ) : null}
      </div>
      <VolumeNote amount={need} density={density.value} />
      {need && size && density.value !== null ? (
        <p className="mt-1" role="status">
          <span className="figure text-[34px]">{bottlesFor(need.mg, density.value, size.ml)}</span>{" "}
          {bottlesFor(need.mg, density.value, size.ml) === 1 ? "bottle" : "bottles"} of {writeNumber(size.ml, 1)} ml{" "}
          {bottlesFor(need.mg, density.value, size.ml) === 1 ? "holds" : "hold"} {units.about(need.mg)}, which is{" "}
          {writeNumber((need.mg * 1_000) / density.value, 1)} ml.
        </p>
      ) : (
        <p className="mt-1 text-soft">{density.value === null ? "Needs the oil's density." : "Type an amount and the bottle's volume."}</p>
      )}
    </form>
  );
}

/** The stock of one thing: what is there, what came and what it cost, what was counted. */
export function StockPanel({ of, stock, history, low }: { of: StockedThing; stock: Stock | null; history: StockHistory; low: number | null }) {
  const units = useUnits();
  const router = useRouter();
  const place = usePlace();
  const [said, setSaid] = useState("");
  const counted = isCounted(of.kind);
  const write = (value: number) => (counted ? String(value) : units.about(value));
  const leftOf = (id: string) => stock?.left.find((one) => one.lotId === id)?.amount ?? 0;
  const turn = async (act: Promise<{ ok: boolean; message?: string } | null>) => {
    const outcome = await act.catch(() => null);
    setSaid(!outcome ? "The program cannot be reached just now. Try again." : outcome.ok ? "" : (outcome.message ?? ""));
    router.refresh();
  };
  return (
    <>
      <div className="mb-5 flex flex-wrap items-baseline gap-x-6">
        <p>
          <span className={`figure text-[64px] leading-none ${stock && low !== null && stock.onHand < low ? "text-hot" : ""}`}>
            {stock ? (counted ? stock.onHand : units.bulk(stock.onHand)) : "–"}
          </span>{" "}
          <span className="text-soft">{stock ? (counted ? "on hand" : "on hand") : "nothing received or counted yet"}</span>
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
      <div className="grid grid-cols-1 items-start gap-6 xl:grid-cols-2">
        <LotForm of={of} />
        <div className="grid gap-6">
          <CountForm of={of} stock={stock} />
          {of.kind === "fragrance" ? <Bottles of={of} /> : null}
        </div>
      </div>
      {said ? (
        <p role="alert" className="mt-3 font-semibold text-hot">
          ▲ {said}
        </p>
      ) : null}
      <section className="mt-7" aria-label="Lots">
        <h2 className="border-b-[3px] border-ink pb-1">Lots</h2>
        {history.lots.length === 0 ? (
          <p className="py-3 text-soft">None yet. Each delivery is a lot with its own cost: batches draw on the oldest first.</p>
        ) : null}
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
                aria-label={`${lot.withdrawn ? "Put back" : "Take back"} the lot ${lot.code || lot.receivedOn}`}
                onClick={() =>
                  turn(
                    saveLot(place, {
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
                {lot.withdrawn ? "Put back" : "Take back"}
              </button>
            </li>
          ))}
        </ul>
      </section>
      {history.counts.length > 0 ? (
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
                  aria-label={`${count.withdrawn ? "Put back" : "Take back"} the count of ${write(count.amount)}`}
                  onClick={() => turn(saveCount(place, { id: count.id, kind: of.kind, materialId: of.id, amount: count.amount, withdrawn: !count.withdrawn }))}
                >
                  {count.withdrawn ? "Put back" : "Take back"}
                </button>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </>
  );
}
