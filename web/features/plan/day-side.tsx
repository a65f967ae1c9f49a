"use client";

import { writeDuration } from "@hearth/core";
import { useWorkshop } from "@/log/workshop";
import { Warn } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { DayMoves } from "./day-moves";
import { useTimes } from "./day-times";

/** What can be had on paper of a day. */
export function DayPapers({ on }: { on: string }) {
  const { workshopId } = useWorkshop();
  const { rows } = useTimes();
  return (
    <>
      {rows.length > 0 ? (
        <>
          <a className="press" href={`/api/workshops/${workshopId}/days/${on}/sheet`} target="_blank" rel="noreferrer">
            Batch sheets (PDF)
          </a>
          <a className="press" href={`/api/workshops/${workshopId}/days/${on}/sheet?what=tags`} target="_blank" rel="noreferrer">
            Jar tags (PDF)
          </a>
        </>
      ) : null}
      <button type="button" className="press" onClick={() => window.print()} disabled={rows.length === 0}>
        Print
      </button>
    </>
  );
}

/** What stands in the way of a timetable, and how to have it out of the way. */
export function DayFault() {
  const { answer, canUndo, clock, state, undo, work } = useTimes();
  const fault = answer?.infeasible;
  const faultPot = fault && work.find((work) => work.pot.key === fault.job);
  const faultStep = faultPot?.steps.find((step) => step.id === fault?.step)?.name;
  return (
    <>
      {state.is === "failed" ? <Warn>{state.message}</Warn> : null}
      {fault ? (
        <div role="alert">
          <Warn>
            {faultPot && fault.window ? (
              <>
                Pot {faultPot.pot.number} cannot “{faultStep}” at that time. With the other pinned steps, it can start{" "}
                {fault.window.to === undefined ? `from ${clock(fault.window.from)} on` : `only from ${clock(fault.window.from)} to ${clock(fault.window.to)}`}.
                At other times it is outside its range, or an earlier step is not done.
              </>
            ) : faultPot && fault.resource ? (
              `Pot ${faultPot.pot.number}, “${faultStep}”: there is not enough of what it needs (${fault.resource}) at that time.`
            ) : (
              "These pinned steps do not fit together. Unpin one of them."
            )}
          </Warn>
          {canUndo ? (
            <button type="button" className="press mt-2" onClick={undo}>
              Undo
            </button>
          ) : null}
        </div>
      ) : null}
    </>
  );
}

/** How good the timetable is, what moved, and what its times run into. */
export function DayVerdict() {
  const units = useUnits();
  const { answer, canUndo, clock, moves, state, stop, sun, undo } = useTimes();
  return (
    <>
      {answer && !answer.infeasible ? (
        <section aria-label="How good it is" className="text-[15px]">
          <h2 className="text-[17px]">How good it is</h2>
          <p className="mt-1" aria-live="polite">
            {answer.proved_optimal ? (
              <strong className="text-inside">✓ proved: no schedule ends sooner</strong>
            ) : (
              <>
                It ends after {writeDuration(answer.makespan * 60)}; none can end before {writeDuration(answer.lower_bound * 60)}.
              </>
            )}
          </p>
          {state.is === "looking" ? (
            <button type="button" className="press mt-2" onClick={stop}>
              Stop and keep this
            </button>
          ) : null}
        </section>
      ) : null}
      <DayMoves moves={moves} clock={clock} canUndo={canUndo} onUndo={undo} />
      {sun.length > 0 ? (
        <Warn>
          The sun reaches the table at {sun.map((moment) => units.dayClock(moment)).join(", ")}, while candles set there: move them into the shade, or they
          sweat.
        </Warn>
      ) : null}
    </>
  );
}
