"use client";

import { compareThrow, nextForThrow, parseReach, type Room, THROWS, targetScore, variantWords } from "@hearth/core";
import { useMemo, useState } from "react";
import { Field, orNothing, useFields } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { FormMessage } from "@/ui/form-message";
import { Score } from "@/ui/score";
import { Aside } from "@/ui/side-notes";
import { Toggle } from "@/ui/toggle";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { Seen } from "./pool-picture";
import type { Trial } from "./use-trial";

/** Scores of scorers, one candle to a room, by codes until everybody may know; and what they say together. */
export function Throw({ trial, people, rooms }: { trial: Trial; people: { id: string; name: string }[]; rooms: readonly Room[] }) {
  const units = useUnits();
  const { personId } = useWorkshop();
  const { plan, state } = trial;
  const [testCandle, setTestCandle] = useState("");
  const [how, setHow] = useState<(typeof THROWS)[number] | undefined>("hot");
  const [room, setRoom] = useState<string>(rooms[0]?.name ?? "");
  const wanted = targetScore(rooms.find((item) => item.name === room)?.size ?? "small");
  const [shut, setShut] = useState<"shut" | "open" | undefined>(undefined);
  const [message, setMessage] = useState("");
  const rules = useMemo(() => ({ reach: orNothing({ initial: "", parse: (text: string) => parseReach(text, units.length), echo: units.reach }) }), [units]);
  const fields = useFields(rules);
  const nose = people.find((item) => item.id === personId)?.name ?? "";
  const blind = state.codesRevealedAt === null;
  const nameOf = (key: string) => {
    const item = plan.testCandles.find((each) => each.key === key);
    return blind ? (item?.code ?? key) : `${key}, ${variantWords(plan, item?.variant ?? "")}`;
  };
  const rate = (score: number) => {
    const all = fields.check();
    if (!all) return;
    if (!testCandle) return setMessage("Choose which candle you score.");
    const why = trial.enter({
      kind: "throwScored",
      payload: {
        testCandle,
        throw: how ?? "hot",
        room,
        score,
        ...(all.reach === null ? {} : { reachUm: all.reach }),
        ...(shut === undefined ? {} : { window: shut === "open" }),
      },
    });
    setMessage(why);
    if (why) return;
    setTestCandle("");
    fields.reset();
  };
  const unmask = () => setMessage(trial.enter({ kind: "codesRevealed", payload: {} }));
  const of = state.ratings.filter((rating) => rating.throw === (how ?? "hot"));
  const comparison = compareThrow(plan, of, (variant) => variantWords(plan, variant));
  const names = new Map(people.map((item) => [item.id, item.name]));
  const best = comparison ? Math.max(...comparison.variants.map((variant) => variant.mean)) : null;
  const weak = best !== null && best < wanted;
  const sooty = Object.values(state.testCandles).some((testCandle) =>
    testCandle.sessions.some((each) => each.checks.some((look) => look.soot !== undefined && look.soot !== "none")),
  );
  const cured = trial.batches.every((batch) => batch.testFrom !== null && Date.parse(batch.testFrom) <= Date.parse(trial.now));
  const tried = { wax: "wax", scent: "oil", vessel: "vessel", "wick kind": "wick", "wick size": "wick" } as Record<string, string>;
  const next = weak
    ? nextForThrow({
        loadPpm: Math.max(...plan.testCandles.map((testCandle) => testCandle.loadPpm)),
        tried: plan.varies && tried[plan.varies] ? [tried[plan.varies] as string] : [],
        sooty,
        cured,
      })
    : null;
  /** Returns how old it was when it was smelled: one of a day can be almost nothing. */
  const ageOf = (key: string, at: string) => {
    const batch = trial.batches.find((batch) => batch.id === plan.testCandles.find((each) => each.key === key)?.batch?.id);
    return batch?.pouredAt ? `, ${units.n((Date.parse(at) - Date.parse(batch.pouredAt)) / 86_400_000, 1)} days after pouring` : "";
  };
  // In the order of their codes, which says nothing of the variants.
  const listed = blind ? [...plan.testCandles].sort((a, b) => (a.code < b.code ? -1 : 1)) : plan.testCandles;
  return (
    <>
      <p className="text-soft">
        One candle in each room, never several side by side. The same person scores all of them.{" "}
        {blind ? "The candles have codes until everybody has scored them." : ""}
      </p>
      <section className="sheet mt-3" aria-label="Score one">
        <p className="font-semibold">{nose ? `Score by ${nose}` : "Choose who is working first: scores are compared within one person."}</p>
        <fieldset className="mt-2">
          <legend className="font-semibold">Candle</legend>
          <div className="mt-1 flex flex-wrap gap-1">
            {listed.map((item) => {
              const done = of.some((each) => each.testCandle === item.key && each.scorer === personId && each.room === room);
              return (
                <Toggle key={item.key} on={testCandle === item.key} onPress={() => setTestCandle(item.key)} className="min-w-[64px]">
                  {blind ? item.code : item.key}
                  {done ? <span className="font-normal"> ✓</span> : null}
                </Toggle>
              );
            })}
          </div>
        </fieldset>
        <Seen label="Scent throw" of={THROWS} value={how} onValue={(value) => setHow(value ?? how)} words={{ cold: "cold, unlit", hot: "hot, burning" }} />
        {/* Tapped again, the room stays chosen. */}
        <Seen label="Room" of={rooms.map((room) => room.name)} value={room} onValue={(value) => setRoom(value ?? room)} />
        <Seen label="Window" of={["shut", "open"] as const} value={shut} onValue={setShut} />
        <div className="mt-3 max-w-[280px]">
          <Field label="Noticed up to" unit={units.length === "in" ? "ft" : "m"} {...fields.bind("reach")} hint="How far away you still smell it. Optional." />
        </div>
        <p className="mt-2 font-semibold">Score out of ten</p>
        <Score disabled={!nose} onScore={rate} />
        <FormMessage>{message}</FormMessage>
      </section>
      {comparison ? (
        <section className="mt-5" aria-label="Scores compared">
          <h2>Scores compared, {how === "cold" ? "unlit" : "burning"}</h2>
          {blind ? (
            <p className="mt-1">
              {of.length} {of.length === 1 ? "score" : "scores"} so far.{" "}
              <button type="button" className={press({ size: "gloved" })} onClick={() => unmask()}>
                Reveal the codes
              </button>
            </p>
          ) : (
            <>
              <p className="mt-1 text-[19px] font-bold">{units.say(comparison.says)}</p>
              <ul className="mt-2">
                {comparison.variants.map((variant) => (
                  <li key={variant.variant} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-1">
                    <span className="figure w-[34px] text-[22px]">{variant.variant}</span>
                    <span className="min-w-[150px] flex-1">{variantWords(plan, variant.variant)}</span>
                    <span>
                      mean <span className="figure text-[20px]">{units.n(variant.mean, 1)}</span> of {variant.n}
                    </span>
                    <span className="min-w-[190px] text-right">
                      {variant.against ? (
                        <>
                          <span className="figure text-[20px]">
                            {variant.against.value > 0 ? "+" : ""}
                            {units.n(variant.against.value, 1)}
                          </span>{" "}
                          <span className="text-[15px] text-soft">
                            ({units.n(variant.against.low, 1)} to {units.n(variant.against.high, 1)})
                          </span>
                        </>
                      ) : (
                        <span className="text-[15px] text-soft">the others compared with this one</span>
                      )}
                    </span>
                  </li>
                ))}
              </ul>
              {comparison.scorers.length > 1 ? (
                <p className="mt-1 text-[15px] text-soft">
                  Adjusted for each person's own level:{" "}
                  {comparison.scorers
                    .map((scorer) => `${names.get(scorer.name ?? "") ?? "somebody"} ${scorer.level > 0 ? "+" : ""}${units.n(scorer.level, 1)}`)
                    .join(", ")}
                  , and for rooms.
                </p>
              ) : null}
            </>
          )}
        </section>
      ) : null}
      {of.length > 0 ? (
        <section className="mt-4">
          <h2>Scores</h2>
          <ul className="mt-1 text-[15px]">
            {of.map((rating) => (
              <li key={rating.id} className="border-b border-line py-1">
                <span className="figure text-[18px]">{rating.score}</span> {nameOf(rating.testCandle)}, {rating.room},{" "}
                {names.get(rating.scorer ?? "") ?? "somebody"}, {units.dayClock(rating.at)}
                {ageOf(rating.testCandle, rating.at)}
                {rating.reachUm === undefined ? "" : `, reaches ${units.reach(rating.reachUm)}`}
                {rating.window === undefined ? "" : rating.window ? ", window open" : ", window shut"}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {next && !blind ? (
        <Aside title="If it is weak, try next">
          {next.says[0]?.toUpperCase()}
          {next.says.slice(1)}. {wanted} of 10 is enough for this room. Common practice, no source.
        </Aside>
      ) : null}
    </>
  );
}
