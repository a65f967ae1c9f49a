"use client";

import { type ForecastView, type Foreseen, nextCall } from "@hearth/core";
import { useEffect, useRef } from "react";
import type { Batch } from "@/log/use-batch";
import { durationInWords } from "@/ui/describe";
import { sound } from "@/ui/sound";
import { useNow, useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";

const secondsTo = (iso: string, now: string) => Math.max(0, (Date.parse(iso) - Date.parse(now)) / 1_000);

/** Sounds once when a pot asks for hands: to be looked at, or before it leaves its range. */
export function CallSound({ forecastView }: { forecastView: ForecastView }) {
  const { is } = nextCall(forecastView, useNow());
  const rang = useRef(`${forecastView.name} ${is}`);
  useEffect(() => {
    const key = `${forecastView.name} ${is}`;
    if ((is === "look" || is === "off" || is === "leaving") && rang.current !== key) sound(is === "look" ? 1 : 2);
    rang.current = key;
  }, [is, forecastView.name]);
  return null;
}

/** "about 10:42, likely 10:39 to 10:46": in four cases of five. Of one reading alone no interval is said: it would be as long as the wait. */
function Sure({ when, readings }: { when: Foreseen; readings: number }) {
  const units = useUnits();
  return (
    <span className="text-[15px] text-soft">
      about {units.clock(when.at)}
      {readings === 0 ? null : readings === 1 ? "; a second reading improves this" : `, likely ${units.clock(when.low)} to ${units.clock(when.high)}`}
    </span>
  );
}

/** Returns a time ahead: "12 min", and never "0 s". */
const ahead = (seconds: number): string => (seconds < 60 ? "under 1 min" : durationInWords(seconds));

/** When a pot enters or leaves its range, shown as large as it is urgent. */
export function Ahead({ forecastView, size = "text-[44px]" }: { forecastView: ForecastView; size?: string }) {
  const now = useNow();
  const units = useUnits();
  const { name, enters, leaves, is, why, readings } = forecastView;
  const call = nextCall(forecastView, now);
  if (call.is === "stale")
    return <p className="text-[15px] text-soft">Last read on {units.dayClock(forecastView.readAt)}, too long ago for a forecast. Read it again.</p>;
  if (call.is === "off" && enters)
    return (
      <p className="font-semibold text-hot" role="alert">
        <span className={`figure leading-none ${size}`}>Take it off the heat now:</span> it keeps rising. Stir it, then read it.{" "}
        <Sure when={enters} readings={readings} />
      </p>
    );
  if (call.is === "wait" && enters)
    return (
      <p>
        <span className={`figure leading-none ${size}`}>{ahead(secondsTo(enters.at, now))}</span> to the {name} range <Sure when={enters} readings={readings} />
      </p>
    );
  if (call.is === "look" && enters)
    return (
      <p className="font-semibold">
        <span className={`figure leading-none ${size}`}>Read it now.</span> It should be in the {name} range: <Sure when={enters} readings={readings} />
      </p>
    );
  if (call.is === "leaving" && leaves)
    return (
      <p className={`font-semibold ${is === "heating" ? "text-hot" : "text-cool"}`} role="alert">
        ▲ About to leave the {name} range: {is === "heating" ? "take it off the heat: it keeps rising" : "continue now, or reheat"}.{" "}
        <Sure when={leaves} readings={readings} />
      </p>
    );
  if (call.is === "inside" && leaves)
    return (
      <p>
        In the {name} range for about <span className="figure text-[26px]">{ahead(secondsTo(leaves.at, now))}</span> more, until{" "}
        <Sure when={leaves} readings={readings} />
      </p>
    );
  return why ? <p className="text-[15px] text-soft">{units.say(why)}</p> : null;
}

/** What is forecast of the pot on the screen, and the readings that do not fit it. */
export function ForeseenPot({ forecastView, batch }: { forecastView: ForecastView; batch: Batch }) {
  const units = useUnits();
  return (
    <section aria-label="Forecast" className="mt-2 min-w-[240px] flex-1">
      <CallSound forecastView={forecastView} />
      <Ahead forecastView={forecastView} />
      {forecastView.mixed ? (
        <p className="text-[15px] text-soft">
          {forecastView.drops
            ? `Stirring in the oil lowers it by about ${units.tDifference(Math.round(forecastView.drops.balance * 100))} in theory, and by up to ${units.tDifference(Math.round(forecastView.drops.practice * 100))} in practice. None of your pots was read right after it yet.`
            : "Based on how your earlier pots dropped when oil went in."}{" "}
          A reading improves this; stir first.
        </p>
      ) : null}
      {forecastView.doubts.map((doubt) => {
        const entry = batch.events.find((event) => event.kind === "read" && Date.parse(event.happenedAt) === Date.parse(doubt.at));
        return (
          <div key={doubt.at} className={notice({ size: "small", className: "mt-2" })}>
            <p>
              <strong>
                ▲ {units.t(doubt.celsius)} at {units.clock(doubt.at)}
              </strong>{" "}
              does not match the other readings: a digit misread, not stirred, another thermometer? It stays in the record, but is not used here.
            </p>
            {entry ? (
              <button
                type="button"
                className="press mt-1"
                onClick={() =>
                  void batch.record({ kind: "withdrawn", payload: { why: "does not match the other readings", mode: "undo" }, corrects: entry.id })
                }
              >
                Delete reading
              </button>
            ) : null}
          </div>
        );
      })}
    </section>
  );
}
