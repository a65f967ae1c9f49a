"use client";

import { dueOf, writeDuration } from "@hearth/core";
import { useClock, useNow, useUnits } from "@/ui/units";
import { EntryForm } from "./entry-form";
import { HUGE, type StepProps } from "./step";

/** How long a wait still is, by the workshop's clock. */
function Countdown({ prompt, batch }: Pick<StepProps, "prompt" | "batch">) {
  const units = useUnits();
  const now = useNow();
  const due = dueOf(batch.steps, prompt);
  if (!due || !prompt.least) return null;
  const left = Math.round((Date.parse(due.from) - Date.parse(now)) / 1_000);
  const over = due.until !== null && Date.parse(now) > Date.parse(due.until);
  return (
    <div>
      <span className={`${HUGE} ${left <= 0 ? (over ? "text-hot" : "text-inside") : ""}`} role="timer">
        {left > 0 ? writeDuration(left) : units.clock(due.from)}
      </span>
      <p className={over ? "font-semibold text-hot" : "text-soft"}>
        {left > 0 ? `until ${units.dayClock(due.from)}` : over ? `▲ overdue: it was due to end by ${units.clock(due.until ?? "")}` : "✓ time reached: continue"}
        {left > 0 && due.until ? `, at most until ${units.clock(due.until)}` : ""}
      </p>
    </div>
  );
}

/** A step without a number: marked done with one button. Ending a wait early asks for confirmation. */
export function Done({ prompt, batch, button }: StepProps & { button: string }) {
  const due = dueOf(batch.steps, prompt);
  const clock = useClock();
  const early = () => (due && prompt.least ? Math.round((Date.parse(due.from) - Date.parse(clock.now())) / 1_000) : 0);
  return (
    <>
      {prompt.figure ? <div className={HUGE}>{prompt.figure}</div> : null}
      <Countdown prompt={prompt} batch={batch} />
      <EntryForm
        batch={batch}
        button={button}
        ask={() => (early() > 30 ? `That is ${writeDuration(early())} earlier than in the process.` : null)}
        entry={() => ({ kind: "stepDone", payload: { step: prompt.step } })}
      />
    </>
  );
}
