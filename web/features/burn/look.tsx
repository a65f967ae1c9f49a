"use client";

import { burningIn, FLAMES, LEFT_ON_WALL, MUSHROOMS, parseLength, SOOT, SOOT_AT } from "@hearth/core";
import { useEffect, useMemo, useState } from "react";
import { Field, orNothing, useFields, words } from "@/forms/fields";
import { temperatureRule, whenRule } from "@/forms/rules";
import { FormMessage } from "@/ui/form-message";
import { sound } from "@/ui/sound";
import { Toggle } from "@/ui/toggle";
import { type Formats, useUnits } from "@/ui/units";
import { notice, press } from "@/ui/variants";
import { type Card, type Hand, leftOf, signsIn, widthNow } from "./model";
import { FromAbove, FromSide, Seen } from "./pool-picture";
import type { Trial } from "./use-trial";

/** A length of a burn as it is typed. */
export const lengthRule = (units: Formats, most: number, initial = "") => ({
  initial,
  parse: (text: string) => parseLength(text, { least: 0, most }, units.length),
  echo: (um: number) => units.len(um),
});

/** A measure that a thumb moves: a slider, and a step either way. */
function Measure({
  label,
  value,
  most,
  step,
  onValue,
}: {
  label: string;
  value: number | undefined;
  most: number;
  step: number;
  onValue: (um: number) => void;
}) {
  const units = useUnits();
  const at = value ?? 0;
  return (
    <div className="mt-1">
      <output className="figure block text-center text-[28px] leading-none whitespace-nowrap">{value === undefined ? "–" : units.len(value)}</output>
      <div className="mt-1 grid grid-cols-2 gap-1">
        <button type="button" className="press !min-h-[48px] !px-0" aria-label={`${label}: less`} onClick={() => onValue(Math.max(0, at - step))}>
          −
        </button>
        <button type="button" className="press !min-h-[48px] !px-0" aria-label={`${label}: more`} onClick={() => onValue(Math.min(most, at + step))}>
          +
        </button>
      </div>
      <input
        type="range"
        aria-label={label}
        className="mt-1 h-[32px] w-full accent-(--color-action)"
        min={0}
        max={most}
        step={step}
        value={at}
        aria-valuetext={value === undefined ? "not measured" : units.len(value)}
        onChange={(event) => onValue(Number(event.target.value))}
      />
    </div>
  );
}

/** The scores of a mark of the workshop's own: finer steps are not told apart. */
const SCORES = ["0", "2", "4", "6", "8", "10"] as const;

/** A look at a burning test candle: taps for what is seen, figures for what is measured. What is left alone is not recorded. */
export function Check({ trial, card, onDone }: { trial: Trial; card: Card; onDone: () => void }) {
  const units = useUnits();
  const { testCandle, state } = card;
  const session = burningIn(state);
  const widthUm = widthNow(testCandle, state);
  const wicks = testCandle.wick?.count ?? 1;
  const [hand, setHand] = useState<Hand>({});
  const [more, setMore] = useState(false);
  const [message, setMessage] = useState("");
  const { now } = trial;
  const rules = useMemo(
    () => ({
      wall: orNothing(temperatureRule(units)),
      flame: orNothing(lengthRule(units, 1_000_000)),
      note: words("", 500),
      at: whenRule(now, units),
    }),
    [units, now],
  );
  const fields = useFields(rules);
  // What ends the session is said aloud as soon as it is tapped.
  const unsafe = session !== null && signsIn(hand, session, now, units).length > 0;
  useEffect(() => {
    if (unsafe) sound(3);
  }, [unsafe]);
  if (!session) return null;
  const set = (patch: Partial<Hand>) => setHand((old) => ({ ...old, ...patch }));
  const typed: Hand = {
    ...hand,
    ...(fields.values.wall == null ? {} : { wall: fields.values.wall }),
    ...(fields.values.flame == null ? {} : { flameUm: fields.values.flame }),
  };
  const signs = signsIn(typed, session, fields.values.at ?? now, units);
  const put = (outToo: boolean) => {
    const all = fields.check();
    if (!all) return setMore(true);
    const seen = Object.fromEntries(Object.entries({ ...typed, note: all.note || undefined }).filter(([, value]) => value !== undefined));
    const nothing = Object.keys(seen).length === 0;
    if (nothing && !outToo) return setMessage("Record at least one thing.");
    const why = nothing ? "" : trial.enter({ kind: "checked", payload: { testCandle: testCandle.key, ...seen }, happenedAt: all.at });
    if (why) return setMessage(why);
    if (outToo) trial.enter({ kind: "extinguished", payload: { testCandle: testCandle.key, why: "safety", sign: signs.map((sign) => sign.says).join("; ") } });
    onDone();
  };
  const due = card.now.checks.find((check) => check.state === "next");
  return (
    <section className="sheet" aria-label={`Check ${testCandle.key}`}>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span className="figure text-[40px] leading-none">{testCandle.key}</span>
        <span className="font-semibold">{card.words}</span>
        <span className="ml-auto text-soft">
          minute <span className="figure text-[24px] text-ink">{Math.floor(card.now.minute)}</span>
          {due ? `, check at ${Math.floor(due.due / 60)}:${String(due.due % 60).padStart(2, "0")}` : ""}
        </span>
      </div>
      <div className="mt-3 grid grid-cols-2 gap-3">
        <div>
          <p className="text-[15px] font-semibold">Melt pool from above</p>
          <FromAbove testCandle={testCandle} widthUm={widthUm} poolUm={hand.poolUm} onPool={(poolUm) => set({ poolUm })} />
          <Measure label="Width of the pool" value={hand.poolUm} most={widthUm} step={1_000} onValue={(poolUm) => set({ poolUm })} />
        </div>
        <div>
          <p className="text-[15px] font-semibold">Pool depth from the side</p>
          <FromSide
            testCandle={testCandle}
            left={leftOf(testCandle, state)}
            poolUm={hand.poolUm}
            depthUm={hand.depthUm}
            onDepth={(depthUm) => set({ depthUm })}
          />
          <Measure label="Depth of the pool" value={hand.depthUm} most={40_000} step={1_000} onValue={(depthUm) => set({ depthUm })} />
        </div>
      </div>
      <Seen
        label="It touches the wall"
        of={["0", "25", "50", "75", "100"] as const}
        value={hand.reached === undefined ? undefined : (String(hand.reached) as "0")}
        words={{ "0": "not", "25": "¼", "50": "½", "75": "¾", "100": "all" }}
        onValue={(value) => set({ reached: value === undefined ? undefined : Number(value), ...(value === "100" ? { poolUm: widthUm } : {}) })}
      />
      {wicks > 1 ? (
        Array.from({ length: wicks }, (_, n) => (
          <Seen
            key={n}
            label={`Flame ${n + 1} of ${wicks}`}
            of={FLAMES}
            value={hand.flames?.[n]}
            onValue={(flame) => {
              const flames = Array.from({ length: wicks }, (__, index) => (index === n ? flame : hand.flames?.[index]) ?? "steady");
              set({ flames: flame === undefined ? undefined : flames });
            }}
          />
        ))
      ) : (
        <Seen label="Flame" of={FLAMES} value={hand.flame} onValue={(flame) => set({ flame })} />
      )}
      <Seen label="Mushroom on the wick" of={MUSHROOMS} value={hand.mushroom} onValue={(mushroom) => set({ mushroom })} />
      <Seen
        label="Soot"
        of={SOOT}
        value={hand.soot}
        onValue={(soot) => set({ soot, ...(soot === undefined || soot === "none" ? { sootAt: undefined } : {}) })}
      />
      {(trial.plan.ownMarks ?? []).map((mark) => (
        <Seen
          key={mark}
          label={`${mark}, of 10`}
          of={SCORES}
          value={hand.marks?.[mark] === undefined ? undefined : (String(hand.marks[mark]) as (typeof SCORES)[number])}
          onValue={(score) => {
            const { [mark]: _old, ...rest } = hand.marks ?? {};
            const marks = score === undefined ? rest : { ...rest, [mark]: Number(score) };
            set({ marks: Object.keys(marks).length > 0 ? marks : undefined });
          }}
        />
      ))}
      {hand.soot && hand.soot !== "none" ? <Seen label="Where the soot is" of={SOOT_AT} value={hand.sootAt} onValue={(sootAt) => set({ sootAt })} /> : null}
      <button type="button" className="mt-3 min-h-[44px] underline" aria-expanded={more} onClick={() => setMore(!more)}>
        {more ? "Less" : "More: heat of the wall, height of the flame, wax on the wall, note"}
      </button>
      {more ? (
        <div>
          <div className="grid gap-x-4 sm:grid-cols-2">
            <Field label="Heat of the wall" unit={`°${units.temperature}`} {...fields.bind("wall")} inputMode="decimal" />
            <Field label="Height of the flame" unit={units.length} {...fields.bind("flame")} inputMode="decimal" />
          </div>
          <Seen label="Wax left on the wall" of={LEFT_ON_WALL} value={hand.onWall} onValue={(onWall) => set({ onWall })} />
          <div className="mt-3 flex flex-wrap gap-1">
            {(
              [
                ["bottom", "bottom seen through the pool"],
                ["joined", "two flames joined"],
                ["edge", "hard edge of the pool"],
                ["elsewhere", "something else burns"],
              ] as const
            ).map(([name, label]) => (
              <Toggle key={name} on={hand[name] === true} onPress={() => set({ [name]: hand[name] ? undefined : true })}>
                {label}
              </Toggle>
            ))}
          </div>
          <div className="mt-3 grid gap-x-4 sm:grid-cols-2">
            <Field label="Note" {...fields.bind("note")} />
            <Field label="When" {...fields.bind("at")} placeholder="now" hint="Leave empty for now, or enter the time if you log it late." />
          </div>
        </div>
      ) : null}
      {signs.length > 0 ? (
        <div role="alert" className={notice({ tone: "safety", className: "mt-3 border-[3px]" })}>
          {signs.map((sign) => (
            <p key={sign.id}>
              <strong className="text-[19px] text-safety">⚠ {sign.says}.</strong> {sign.step}
            </p>
          ))}
          <button type="button" className="action-button mt-2 w-full" data-next-step onClick={() => put(true)}>
            Save check, candle out
          </button>
        </div>
      ) : null}
      <FormMessage>{message}</FormMessage>
      <div className="mt-3 flex flex-wrap gap-2">
        <button
          type="button"
          className={signs.length > 0 ? press({ size: "gloved" }) : "action-button flex-1"}
          {...(signs.length > 0 ? {} : { "data-next-step": "" })}
          onClick={() => put(false)}
        >
          {signs.length > 0 ? "Save check, still burning" : "Save check"}
        </button>
        <button type="button" className={press({ size: "gloved" })} onClick={onDone}>
          Back
        </button>
      </div>
    </section>
  );
}
