"use client";

import { BATCH, ORDER, type SentEvent, TRIAL, versionOf } from "@hearth/core";
import { Dialog } from "radix-ui";
import { useEffect, useMemo, useState } from "react";
import { v7 } from "uuid";
import { Field, type FieldRule, useFields, words } from "@/forms/fields";
import { whenRule } from "@/forms/rules";
import { useClock, useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";
import { discard, entries, retry } from "./outbox";
import type { OutboxEntry } from "./store";
import { valueRule } from "./value-rule";

const SUBJECTS: Readonly<Record<string, { correctableField: typeof BATCH.correctableField }>> = { batch: BATCH, trial: TRIAL, order: ORDER };

/** What an entry says can be typed anew, and when it was: then it is sent as an entry of its own. */
function Mend({ one: entry, onDone }: { one: OutboxEntry; onDone: () => void }) {
  const units = useUnits();
  const clock = useClock();
  const value = valueRule(SUBJECTS[entry.what ?? "batch"]?.correctableField(entry.event.kind), entry.event, units);
  const rules = useMemo(
    () => ({ value: (value?.rule ?? words()) as FieldRule<unknown>, at: whenRule(clock.now(), units) as FieldRule<unknown> }),
    [value?.rule, clock, units],
  );
  const fields = useFields(rules);
  return (
    <form
      ref={fields.form}
      className="mt-2 grid items-start gap-x-4 sm:grid-cols-[1fr_1fr_auto]"
      onSubmit={(submitted) => {
        submitted.preventDefault();
        const all = fields.check();
        if (!all) return;
        const body = value?.label ? value.body(all.value) : {};
        const event = { ...entry.event, ...body, id: v7(), happenedAt: (all.at as string | null) ?? entry.event.happenedAt } as SentEvent;
        const message = value?.label ? fields.bind("value").echo || fields.text("value") : "";
        void retry(entry, { event, v: entry.v ?? versionOf(event.kind), told: message ? `${entry.told.split(":")[0]}: ${message}` : entry.told }).then(onDone);
      }}
    >
      {value?.label ? <Field label={value.label} {...fields.bind("value")} autoFocus /> : null}
      <Field label="When" {...fields.bind("at")} placeholder={units.clock(entry.event.happenedAt)} hint="Leave empty to keep its time." />
      <button type="submit" className="press mt-[26px]">
        Send it so
      </button>
    </form>
  );
}

interface Open {
  id: string;
  number: number;
  title: string;
}

/** An entry that its batch will not take can belong to another. */
function Move({ one: entry, onDone }: { one: OutboxEntry; onDone: () => void }) {
  const [open, setOpen] = useState<Open[] | null>(null);
  const [away, setAway] = useState(false);
  useEffect(() => {
    void fetch(`/api/workshops/${entry.workshopId}/batches`)
      .then(async (answer) => (answer.ok ? setOpen(((await answer.json()) as { batches: Open[] }).batches) : setAway(true)))
      .catch(() => setAway(true));
  }, [entry.workshopId]);
  if (away) return <p className="mt-2 text-soft">Cannot reach the workshop, so its batches are not known. Try again in a moment.</p>;
  const others = (open ?? []).filter((batch) => batch.id !== entry.batchId);
  return (
    <div className="mt-2 flex flex-wrap gap-2" role="group" aria-label="Move it to">
      {open && others.length === 0 ? <p className="text-soft">No other batch is open.</p> : null}
      {others.map((batch) => (
        <button
          key={batch.id}
          type="button"
          className="press"
          onClick={() =>
            void retry(entry, {
              batchId: batch.id,
              of: `${batch.number} ${batch.title}`,
              event: { ...entry.event, id: v7(), corrects: null } as SentEvent,
            }).then(onDone)
          }
        >
          {batch.number} {batch.title}
        </button>
      ))}
    </div>
  );
}

/** One entry that was refused, with what can be done about it. */
function RefusedEntry({ one: entry, onDropped }: { one: OutboxEntry; onDropped: (back: () => void) => void }) {
  const units = useUnits();
  const [doing, setDoing] = useState<"mend" | "move" | null>(null);
  const newer = entry.why?.newer;
  return (
    <li className="border-b border-line py-3">
      <p>
        <span className="figure text-[16px] text-soft">{units.dayClock(entry.event.happenedAt)}</span> <strong>{entry.told || entry.event.kind}</strong>
        {entry.of ? (
          <span className="text-soft">
            , {entry.what ?? "batch"} {entry.of}
          </span>
        ) : null}
      </p>
      <p className="font-semibold text-hot">▲ {entry.why?.message}</p>
      <div className="mt-2 flex flex-wrap gap-2">
        {entry.what === "note" ? null : (
          <button type="button" className="press" aria-expanded={doing === "mend"} onClick={() => setDoing(doing === "mend" ? null : "mend")}>
            Fix entry
          </button>
        )}
        {entry.what && entry.what !== "batch" ? null : (
          <button type="button" className="press" aria-expanded={doing === "move"} onClick={() => setDoing(doing === "move" ? null : "move")}>
            Move it to another batch
          </button>
        )}
        {newer ? (
          <button type="button" className="press" onClick={() => void retry(entry, { event: { ...entry.event, id: v7(), corrects: newer } as SentEvent })}>
            Replace the newer correction
          </button>
        ) : null}
        <button type="button" className="press" onClick={() => void retry(entry)}>
          Send again unchanged
        </button>
        <button type="button" className="press" onClick={() => void discard(entry).then(onDropped)}>
          Discard entry
        </button>
      </div>
      {doing === "mend" ? <Mend one={entry} onDone={() => setDoing(null)} /> : null}
      {doing === "move" ? <Move one={entry} onDone={() => setDoing(null)} /> : null}
    </li>
  );
}

/** Entries that were refused, with what can be done about each. */
export function RejectedEntry({ refused }: { refused: OutboxEntry[] }) {
  const [open, setOpen] = useState(false);
  const [dropped, setDropped] = useState<(() => void)[]>([]);
  // The one that was mended last leaves an empty list: nothing more to do here.
  const idle = refused.length === 0 && dropped.length === 0;
  useEffect(() => {
    if (idle) setOpen(false);
  }, [idle]);
  if (idle || (refused.length === 0 && !open)) return null;
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        if (!next) setDropped([]);
      }}
    >
      {refused.length > 0 ? (
        <div role="status" className={notice({ place: "strip", className: "flex flex-wrap items-center gap-x-4 gap-y-1" })}>
          <span>
            ▲ {entries(refused.length)} of this device {refused.length === 1 ? "was" : "were"} refused: {refused[0]?.why?.message}
          </span>
          <Dialog.Trigger className="press">Look at {refused.length === 1 ? "it" : "them"}</Dialog.Trigger>
        </div>
      ) : null}
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/50" />
        <Dialog.Content className="sheet fixed top-[6vh] left-1/2 z-50 max-h-[88vh] w-[min(760px,94vw)] -translate-x-1/2 overflow-auto">
          <Dialog.Title className="text-[22px]">Rejected entries</Dialog.Title>
          <Dialog.Description className="text-soft">They stay on this device until you fix, move or discard them. They do not count yet.</Dialog.Description>
          <ul className="mt-2">
            {refused.map((entry) => (
              <RefusedEntry key={entry.id} one={entry} onDropped={(back) => setDropped((old) => [...old, back])} />
            ))}
          </ul>
          {dropped.length > 0 ? (
            <p className="mt-3 flex flex-wrap items-center gap-3" role="status">
              {entries(dropped.length)} dropped.
              <button
                type="button"
                className="press"
                onClick={() => {
                  for (const back of dropped) back();
                  setDropped([]);
                }}
              >
                Have {dropped.length === 1 ? "it" : "them"} back
              </button>
            </p>
          ) : null}
          <Dialog.Close className="press mt-3">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
