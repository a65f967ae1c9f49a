"use client";

import { writeDuration } from "@hearth/core";
import { useDeferredValue } from "react";
import { Timetable } from "@/ui/timetable/timetable";
import { DayLosses } from "./day-losses";
import { DayPots } from "./day-pots";
import type { DayProduct } from "./day-product";
import { DaySteps } from "./day-steps";
import { useTimes } from "./day-times";

/** A day as it is found: the drawing, what the people do, and what goes into each pot. */
export function DayShown({ products }: { products: DayProduct[] }) {
  const {
    changes,
    answer,
    atHands,
    begin,
    begun,
    change,
    chores,
    clock,
    drawn,
    heats,
    lanes,
    lit,
    makespan,
    minuteOf,
    onGone,
    onHold,
    ready,
    rows,
    setLit,
    starts,
    work,
    request,
  } = useTimes();
  // The lists are long: the timetable is shown without waiting for them.
  const hasLists = useDeferredValue(rows.length > 0, false);
  if (request === null) return <p className="mt-6 text-soft">Type how many of each to see the schedule.</p>;
  return (
    <>
      <section className="sheet mt-6" aria-label="Schedule">
        <div className="mb-2 flex flex-wrap items-baseline gap-x-6">
          <h2>
            {work.length} {work.length === 1 ? "pot" : "pots"}
          </h2>
          {rows.length > 0 ? (
            <p>
              <span className="figure text-[34px] leading-none">
                {clock(starts)}–{clock(makespan)}
              </span>{" "}
              <span className="text-soft">hands-on time {writeDuration(atHands * 60)}</span>
            </p>
          ) : (
            <p className="text-soft">{answer?.infeasible ? "No schedule fits this." : "Working it out…"}</p>
          )}
        </div>
        {rows.length > 0 ? (
          <Timetable
            rows={drawn}
            begin={begin}
            lit={lit}
            label="The day by pot"
            chores={chores}
            breaks={changes.breaks}
            lanes={lanes}
            heats={heats}
            onMove={onHold}
          />
        ) : null}
        <p className="mt-1 text-[14px] text-soft">
          ■ hands-on&ensp; □ hands-on during a wait: oils, wicks, labels&ensp; ▨ on the heat&ensp; ─ waiting, cooling&ensp; ▼ pinned to its time&ensp; below:
          temperature of each pot
        </p>
      </section>
      {hasLists ? (
        <>
          <DayLosses
            breaks={changes.breaks}
            lost={changes.lost}
            clock={clock}
            minuteOf={minuteOf}
            onBreaks={(breaks) => change({ breaks })}
            onLost={(lost) => change({ lost, held: begun(null) })}
          />
          <DaySteps rows={rows} chores={chores} clock={clock} minuteOf={minuteOf} held={changes.held} onHold={onHold} onLook={setLit} />
          <DayPots work={work} ready={ready} products={products} gone={Object.keys(changes.gone).length} onGone={onGone} />
        </>
      ) : null}
    </>
  );
}
