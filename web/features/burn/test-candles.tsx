"use client";

import { presenceDue } from "@hearth/core";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link } from "@/ui/address";
import { durationInWords } from "@/ui/describe";
import { FormMessage } from "@/ui/form-message";
import { Warn } from "@/ui/side-notes";
import { useClock, useUnits } from "@/ui/units";
import { notice, press } from "@/ui/variants";
import { Light, PutOut, WeighAfter } from "./light";
import { Check } from "./look";
import { type Card, cardsOf, isDue, toWeigh } from "./model";
import { type Calling, useCalls, useDueTitle } from "./use-calls";
import type { Trial } from "./use-trial";

type Doing = { key: string; what: "look" | "light" | "out" } | null;

/** Returns whether every test candle has burned its minimum of sessions, or was stopped, and a variant is still to be judged. */
const isLongEnough = ({ plan, state }: Trial): boolean =>
  plan.testCandles.some((testCandle) => !state.decided[testCandle.variant]) &&
  plan.testCandles.every(({ key }) => {
    const candle = state.testCandles[key];
    return candle !== undefined && (candle.stopped !== null || candle.sessions.filter((session) => session.out !== null).length >= plan.protocol.least);
  });

/** Somebody says that they are with what burns; asked again and again while anything does. */
function Presence({ trial, burning }: { trial: Trial; burning: readonly Card[] }) {
  const [message, setMessage] = useState("");
  // Known only in the browser.
  const [asks, setAsks] = useState(true);
  useEffect(() => setAsks(typeof Notification === "undefined" || Notification.permission !== "default"), []);
  const due = presenceDue(trial.state.presentAt, trial.now);
  const long = burning.filter((card) => card.now.tooLong);
  const here = () => setMessage(trial.enter({ kind: "present", payload: {} }));
  return (
    <div role={due || long.length > 0 ? "alert" : undefined} className={notice({ tone: "safety", className: due ? "mb-4 border-[3px]" : "mb-4" })}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <p className="min-w-0 flex-1 basis-[220px]">
          <strong className="text-safety">⚠ {burning.length === 1 ? "A flame is" : `${burning.length} flames are`} burning.</strong>{" "}
          {burning.length === 1
            ? due
              ? "Is somebody with it? If not, put it out now."
              : "Never leave it alone."
            : due
              ? "Is somebody with them? If not, put them out now."
              : "Never leave them alone."}
        </p>
        <button type="button" className={due ? "action-button" : press({ size: "gloved" })} onClick={() => here()}>
          I am here
        </button>
        {asks ? null : (
          <button type="button" className={press({ size: "gloved" })} onClick={() => void Notification.requestPermission().then(() => setAsks(true))}>
            Notify me on this device
          </button>
        )}
      </div>
      {long.map((card) => (
        <p key={card.testCandle.key} className="mt-1 font-semibold text-safety">
          ⚠ {card.testCandle.key} has burned for {durationInWords(card.now.minute * 60)}: put it out. No candle burns for more than four hours at a time.
        </p>
      ))}
      <FormMessage>{message}</FormMessage>
    </div>
  );
}

/** One test candle: where it stands, what is due next and when, and the way to it. */
function TestCandleCard({ card, trial, onDo, first }: { card: Card; trial: Trial; onDo: (what: "look" | "light" | "out") => void; first: boolean }) {
  const units = useUnits();
  const { testCandle, now } = card;
  const due = isDue(now, trial.now);
  const seconds = now.next ? (Date.parse(now.next.at) - Date.parse(trial.now)) / 1_000 : 0;
  const missed = now.checks.filter((check) => check.state === "missed").length;
  const weigh = toWeigh(card.state);
  return (
    <li className={`border-b-2 border-line py-3 ${due ? "bg-wax" : ""}`} aria-label={`Test candle ${testCandle.key}`}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <span className="figure text-[34px] leading-none">{testCandle.key}</span>
        <div className="min-w-0 flex-1 basis-[170px]">
          <p className="font-semibold">
            {card.words}
            {testCandle.fill === "half" ? <span className="font-normal"> · half-filled</span> : null}
          </p>
          {now.state === "burning" ? (
            <p>
              {due ? (
                <strong className="text-[19px]">{now.next?.what === "look" ? "Check it now" : "Put it out now"}</strong>
              ) : (
                <>
                  {now.next?.what === "look" ? "look" : "put it out"} in <span className="figure text-[22px]">{durationInWords(seconds)}</span>
                </>
              )}
              {due && seconds < -60 ? <span className="text-hot"> · {durationInWords(-seconds)} late</span> : null}
              <span className="text-soft"> · minute {Math.floor(now.minute)}</span>
            </p>
          ) : (
            <p className="text-soft">
              {card.blocked ||
                (now.state === "ready"
                  ? `ready for session ${now.session}`
                  : now.state === "resting"
                    ? `rests until ${units.dayClock(now.next?.at ?? trial.now)}`
                    : now.state === "done"
                      ? `burned to the end, ${now.session} sessions`
                      : `stopped: ${card.state.stopped?.why}`)}
            </p>
          )}
          {missed > 0 ? (
            <p className="text-[15px] font-semibold text-hot">▲ {missed === 1 ? "1 check was missed" : `${missed} checks were missed`} in this session</p>
          ) : null}
        </div>
        {now.state === "burning" ? (
          <div className="flex w-full gap-2 sm:w-auto">
            <button
              type="button"
              className={
                first && now.next?.what !== "put out"
                  ? "action-button flex-1 whitespace-nowrap"
                  : press({ size: "gloved", className: "flex-1 whitespace-nowrap" })
              }
              {...(first && now.next?.what !== "put out" ? { "data-next-step": "" } : {})}
              onClick={() => onDo("look")}
              aria-label={`Check ${testCandle.key}`}
            >
              Check
            </button>
            <button
              type="button"
              className={
                due && now.next?.what === "put out"
                  ? "action-button flex-1 whitespace-nowrap"
                  : press({ size: "gloved", className: "flex-1 whitespace-nowrap" })
              }
              onClick={() => onDo("out")}
              aria-label={`Put out ${testCandle.key}`}
            >
              Put out
            </button>
          </div>
        ) : now.state === "ready" || now.state === "resting" ? (
          <button
            type="button"
            className={first && !card.blocked ? "action-button w-full sm:w-auto" : press({ size: "gloved", className: "w-full sm:w-auto" })}
            {...(first && !card.blocked ? { "data-next-step": "" } : {})}
            disabled={card.blocked !== ""}
            onClick={() => onDo("light")}
            aria-label={`Light ${testCandle.key}`}
          >
            Light
          </button>
        ) : null}
      </div>
      {weigh === null ? null : <WeighAfter trial={trial} card={card} session={weigh} />}
    </li>
  );
}

/** The test candles of a trial, the most urgent first, and the one that is being worked on. */
export function TestCandles({ trial, onVerdict }: { trial: Trial; onVerdict: () => void }) {
  const { aheadMs } = useClock();
  const [doing, setDoing] = useState<Doing>(null);
  const cards = cardsOf(trial.plan, trial.state, trial.batches, trial.now);
  const burning = cards.filter((card) => card.now.state === "burning");
  const calls = burning.flatMap((card): Calling[] =>
    card.now.next
      ? [
          {
            key: card.testCandle.key,
            at: card.now.next.at,
            says: card.now.next.what === "look" ? `Check ${card.testCandle.key}: ${card.words}` : `Put ${card.testCandle.key} out: ${card.words}`,
          },
        ]
      : [],
  );
  const presence: Calling[] =
    burning.length > 0 && trial.state.presentAt
      ? [
          {
            key: "present",
            at: new Date(Date.parse(trial.state.presentAt) + 30 * 60_000).toISOString(),
            says: burning.length === 1 ? "Is somebody with the burning candle?" : "Is somebody with the burning candles?",
          },
        ]
      : [];
  useCalls([...calls, ...presence], aheadMs);
  useDueTitle(burning.filter((card) => isDue(card.now, trial.now)).length);
  const inHand = doing ? cards.find((card) => card.testCandle.key === doing.key) : undefined;
  const first = useMemo(() => cards.find((card) => card.now.state === "burning" || (card.now.state === "ready" && !card.blocked))?.testCandle.key, [cards]);
  const hand = useRef<HTMLDivElement>(null);
  // On a phone the form comes to the top of the screen.
  useEffect(() => {
    if (doing) hand.current?.scrollIntoView({ block: "start" });
  }, [doing]);
  if (doing && inHand) {
    const done = () => setDoing(null);
    return (
      <div ref={hand}>
        {doing.what === "look" ? (
          <Check trial={trial} card={inHand} onDone={done} />
        ) : doing.what === "light" ? (
          <Light trial={trial} card={inHand} onDone={done} />
        ) : (
          <PutOut trial={trial} card={inHand} onDone={done} />
        )}
        {burning.length > 0 ? (
          <div className="mt-4">
            <Presence trial={trial} burning={burning} />
          </div>
        ) : null}
      </div>
    );
  }
  const waiting = new Map(cards.flatMap((card) => (card.blocked && card.testCandle.batch ? [[card.testCandle.batch.id, card.blocked] as const] : [])));
  return (
    <>
      {burning.length > 0 ? <Presence trial={trial} burning={burning} /> : null}
      {[...waiting].map(([batch, text]) => (
        <Warn key={batch}>
          {text[0]?.toUpperCase()}
          {text.slice(1)}: pour it first, and let it cure.{" "}
          <Link className="underline" href={`/bench/${batch}`}>
            Go to the pot
          </Link>
        </Warn>
      ))}
      <ul className="border-t-[3px] border-ink">
        {cards.map((card) => (
          <TestCandleCard
            key={card.testCandle.key}
            card={card}
            trial={trial}
            first={card.testCandle.key === first}
            onDo={(what) => setDoing({ key: card.testCandle.key, what })}
          />
        ))}
      </ul>
      {isLongEnough(trial) ? (
        <div className="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2">
          <p className="min-w-0 flex-1 basis-[260px]">
            The minimum of {trial.plan.protocol.least} {trial.plan.protocol.least === 1 ? "session" : "sessions"} is done. Judge it now, or burn on to the end
            of the wax.
          </p>
          <button type="button" className={press({ size: "gloved" })} onClick={onVerdict}>
            Go to the verdict
          </button>
        </div>
      ) : null}
    </>
  );
}
