"use client";

import { callOf, type Foreseen, type Outlook } from "@hearth/core";
import { useEffect, useRef } from "react";
import type { Batch } from "@/log/use-batch";
import { inWords } from "@/ui/in-words";
import { sound } from "@/ui/sound";
import { useNow, useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";

const secondsTo = (iso: string, now: string) => Math.max(0, (Date.parse(iso) - Date.parse(now)) / 1_000);

/** Sounds once when a pot asks for hands: to be looked at, or before it leaves its range. */
export function CallSound({ outlook }: { outlook: Outlook }) {
  const { is } = callOf(outlook, useNow());
  const rang = useRef(`${outlook.name} ${is}`);
  useEffect(() => {
    const key = `${outlook.name} ${is}`;
    if ((is === "look" || is === "leaving") && rang.current !== key) sound(is === "leaving" ? 2 : 1);
    rang.current = key;
  }, [is, outlook.name]);
  return null;
}

/** "about 10:42, from 10:39 to 10:46 in four cases of five". */
function Sure({ when }: { when: Foreseen }) {
  const units = useUnits();
  return (
    <span className="text-[15px] text-soft">
      about {units.clock(when.at)}; in four cases of five {units.clock(when.low)} to {units.clock(when.high)}
    </span>
  );
}

/** When a pot comes into its range, or leaves it, as large as it matters. */
export function Ahead({ outlook, size = "text-[44px]" }: { outlook: Outlook; size?: string }) {
  const now = useNow();
  const { name, enters, leaves, is, why } = outlook;
  const call = callOf(outlook, now);
  if (call.is === "wait" && enters)
    return (
      <p>
        <span className={`figure leading-none ${size}`}>{inWords(secondsTo(enters.at, now))}</span> to the {name} range <Sure when={enters} />
      </p>
    );
  if (call.is === "look" && enters)
    return (
      <p className="font-semibold">
        <span className={`figure leading-none ${size}`}>Read it now.</span> It should be in the {name} range: <Sure when={enters} />
      </p>
    );
  if (call.is === "leaving" && leaves)
    return (
      <p className={`font-semibold ${is === "heating" ? "text-hot" : "text-cool"}`} role="alert">
        ▲ It is about to leave the {name} range: {is === "heating" ? "take it off the heat" : "go on now, or put it back on the heat"}. <Sure when={leaves} />
      </p>
    );
  if (call.is === "inside" && leaves)
    return (
      <p>
        stays in the {name} range for about <span className="figure text-[26px]">{inWords(secondsTo(leaves.at, now))}</span> <Sure when={leaves} />
      </p>
    );
  return why ? <p className="text-[15px] text-soft">{why}</p> : null;
}

/** What is foreseen of the pot on the screen, and the readings that do not fit it. */
export function ForeseenPot({ outlook, batch }: { outlook: Outlook; batch: Batch }) {
  const units = useUnits();
  return (
    <section aria-label="Foreseen" className="mt-3 border-t border-line pt-2">
      <CallSound outlook={outlook} />
      <Ahead outlook={outlook} />
      {outlook.mixed ? <p className="text-[15px] text-soft">Worked out from the oil that went in. A reading makes it surer; stir first.</p> : null}
      {outlook.doubts.map((one) => {
        const entry = batch.events.find((event) => event.kind === "read" && Date.parse(event.happenedAt) === Date.parse(one.at));
        return (
          <div key={one.at} className={notice({ size: "small", className: "mt-2" })}>
            <p>
              <strong>
                ▲ {units.t(one.celsius)} at {units.clock(one.at)}
              </strong>{" "}
              does not fit the other readings: a digit misread, not stirred, another thermometer? It stays in the record, but is not used here.
            </p>
            {entry ? (
              <button
                type="button"
                className="press mt-1"
                onClick={() => void batch.record({ kind: "withdrawn", payload: { why: "does not fit the other readings", whole: false }, corrects: entry.id })}
              >
                Take it back
              </button>
            ) : null}
          </div>
        );
      })}
    </section>
  );
}
