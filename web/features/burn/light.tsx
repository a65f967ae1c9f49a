"use client";

import { AIR, type Air, BURNING_CANDLE, OUT_WHY, TRIM_MM } from "@hearth/core";
import { useMemo, useState } from "react";
import { Field, orNothing, useFields, words } from "@/forms/fields";
import { massRule, whenRule } from "@/forms/rules";
import { FormMessage } from "@/ui/form-message";
import { Caution, Warn } from "@/ui/side-notes";
import { Toggle } from "@/ui/toggle";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { lengthRule } from "./look";
import type { Card } from "./model";
import type { Trial } from "./use-trial";

/** Before a test candle is lit: trimmed, whole, weighed, and what the air does. */
export function Light({ trial, card, onDone }: { trial: Trial; card: Card; onDone: () => void }) {
  const units = useUnits();
  const { testCandle, state } = card;
  const last = state.sessions.at(-1);
  const [air, setAir] = useState<Air[]>([...(last?.air ?? [])]);
  const [message, setMessage] = useState("");
  const { now } = trial;
  const weighedAfter = last?.afterMg ?? null;
  const rules = useMemo(
    () => ({
      trim: orNothing(lengthRule(units, 100_000, units.length === "in" ? "1/4 in" : "5 mm")),
      before: orNothing(massRule(units, { initial: weighedAfter === null ? "" : units.typed.g(weighedAfter) })),
      early: words("", 300),
      at: whenRule(now, units),
    }),
    [units, weighedAfter, now],
  );
  const fields = useFields(rules);
  const trim = fields.values.trim;
  const wrong = trim != null && (trim < TRIM_MM.low * 1_000 || trim > TRIM_MM.high * 1_000);
  const light = () => {
    const all = fields.check();
    if (!all) return;
    if (card.early && all.early === "") return setMessage("Enter why it is lit before the minimum cure.");
    const happenedAt = all.at;
    const why = trial.enter({ kind: "lit", payload: { testCandle: testCandle.key, trimUm: all.trim, air, early: all.early }, happenedAt });
    if (why) return setMessage(why);
    if (all.before !== null)
      void trial.record({
        kind: "weighed",
        payload: { testCandle: testCandle.key, session: state.sessions.length + 1, when: "before", mg: all.before },
        happenedAt,
      });
    onDone();
  };
  const cracked = () => {
    const why = trial.enter({ kind: "stopped", payload: { testCandle: testCandle.key, why: "the glass is cracked" } });
    if (why) setMessage(why);
    else onDone();
  };
  return (
    <section className="sheet" aria-label={`Light ${testCandle.key}`}>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span className="figure text-[40px] leading-none">{testCandle.key}</span>
        <span className="font-semibold">{card.words}</span>
        <span className="ml-auto text-soft">session {card.now.session}</span>
      </div>
      {card.early ? (
        <Warn>Its minimum cure ends {units.dayClock(card.early)}. A wick that is tested too early can give the wrong result either way.</Warn>
      ) : null}
      {card.now.state === "resting" && card.now.next ? (
        <Warn>It rests until {units.dayClock(card.now.next.at)}: a candle is lit again when it is cold and hard.</Warn>
      ) : null}
      <div className="mt-3 grid gap-x-4 sm:grid-cols-2">
        <Field
          label="Wick trimmed to"
          unit={units.length}
          {...fields.bind("trim")}
          hint={
            wrong ? (
              <strong className="text-hot">
                ▲ Typical is {units.len(TRIM_MM.low * 1_000)} to {units.len(TRIM_MM.high * 1_000)}: trim it first.
              </strong>
            ) : (
              "Leave empty if not measured."
            )
          }
        />
        <Field label="Weight before" unit={units.mass} {...fields.bind("before")} inputMode="decimal" hint="With the jar. The burn rate needs it." />
      </div>
      <fieldset className="mt-2">
        <legend className="font-semibold">Air</legend>
        <div className="mt-1 flex flex-wrap gap-1">
          {AIR.map((item) => (
            <Toggle key={item} on={air.includes(item)} onPress={() => setAir(air.includes(item) ? air.filter((each) => each !== item) : [...air, item])}>
              {item}
            </Toggle>
          ))}
        </div>
      </fieldset>
      <div className="mt-3 grid gap-x-4 sm:grid-cols-2">
        {card.early ? <Field label="Reason for lighting it early" {...fields.bind("early")} /> : null}
        <Field label="When" {...fields.bind("at")} placeholder="now" hint="Leave empty for now." />
      </div>
      <Caution title="Before you light it">Check the jar: never burn a cracked one. {BURNING_CANDLE}</Caution>
      <FormMessage>{message}</FormMessage>
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="action-button flex-1" data-next-step onClick={() => light()}>
          Light candle
        </button>
        <button type="button" className={press({ size: "gloved" })} onClick={() => cracked()}>
          The glass is cracked
        </button>
        <button type="button" className={press({ size: "gloved" })} onClick={onDone}>
          Back
        </button>
      </div>
    </section>
  );
}

const OUT_WORDS: Record<(typeof OUT_WHY)[number], string> = {
  protocol: "Session finished",
  safety: "For safety",
  "by itself": "Went out by itself",
  "stopped early": "Stopped early",
};

/** Putting a test candle out, and why. */
export function PutOut({ trial, card, onDone }: { trial: Trial; card: Card; onDone: () => void }) {
  const { testCandle } = card;
  const units = useUnits();
  const [message, setMessage] = useState("");
  const { now } = trial;
  const rules = useMemo(() => ({ sign: words("", 300), at: whenRule(now, units) }), [now, units]);
  const fields = useFields(rules);
  const out = (why: (typeof OUT_WHY)[number]) => {
    const all = fields.check();
    if (!all) return;
    const refused = trial.enter({ kind: "extinguished", payload: { testCandle: testCandle.key, why, sign: all.sign }, happenedAt: all.at });
    if (refused) setMessage(refused);
    else onDone();
  };
  return (
    <section className="sheet" aria-label={`Put ${testCandle.key} out`}>
      <h2>Put {testCandle.key} out</h2>
      <p className="text-soft">Cover it or dip the wick, never water. Do not move it while the wax is liquid.</p>
      <div className="mt-2 grid gap-2 sm:grid-cols-2">
        {OUT_WHY.map((why) => (
          <button
            key={why}
            type="button"
            className={why === "protocol" ? "action-button" : press({ size: "gloved" })}
            {...(why === "protocol" ? { "data-next-step": "" } : {})}
            onClick={() => out(why)}
          >
            {OUT_WORDS[why]}
          </button>
        ))}
      </div>
      <div className="mt-3 grid gap-x-4 sm:grid-cols-2">
        <Field label="What was seen" {...fields.bind("sign")} hint="If it was for safety." />
        <Field label="When" {...fields.bind("at")} placeholder="now" />
      </div>
      <FormMessage>{message}</FormMessage>
      <button type="button" className={press({ size: "gloved", className: "mt-2" })} onClick={onDone}>
        Back
      </button>
    </section>
  );
}

/** The weight after a session, once it is cold. */
export function WeighAfter({ trial, card, session }: { trial: Trial; card: Card; session: number }) {
  const units = useUnits();
  const rules = useMemo(() => ({ mg: massRule(units) }), [units]);
  const fields = useFields(rules);
  const put = () => {
    const all = fields.check();
    if (!all) return;
    const why = trial.enter({ kind: "weighed", payload: { testCandle: card.testCandle.key, session, when: "after", mg: all.mg } });
    if (why) fields.refuse({ mg: [why] });
    else fields.reset();
  };
  return (
    <form
      ref={fields.form}
      className="mt-2 flex flex-wrap items-start gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        put();
      }}
    >
      <div className="min-w-[160px] flex-1">
        <Field label="Weight after" of={card.testCandle.key} unit={units.mass} {...fields.bind("mg")} inputMode="decimal" hint="When it is cold." />
      </div>
      <button type="submit" className="press mt-[26px]">
        Weighed
      </button>
    </form>
  );
}
