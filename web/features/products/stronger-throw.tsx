"use client";

import { countOf, type Rung, targetScore } from "@hearth/core";
import { useState } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { pourRung, saveFilledRooms } from "@/server/products/throw-commands";
import type { ThrowLadder } from "@/server/products/throw-ladder";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { type Formats, useUnits } from "@/ui/units";

const CHANGED_WORDS = { wax: "wax", scent: "scent", loadPpm: "fragrance load", vessel: "vessel", wick: "wick" } as const;

/** Returns what one way of making the candle changed of an earlier one, in words; all of it for the first. */
function madeWords(units: Formats, rung: Rung): string {
  const { after } = rung;
  if (!after) return [rung.wax, `${rung.scent} ${units.percent(rung.loadPpm, 1)}`, rung.vessel, rung.wick].filter(Boolean).join(" · ");
  return `${CHANGED_WORDS[after.changed]}: ${after.changed === "loadPpm" ? units.percent(rung.loadPpm, 1) : rung[after.changed]}`;
}

function Tried({ rungs }: { rungs: readonly Rung[] }) {
  const units = useUnits();
  if (rungs.length === 0)
    return (
      <Empty title="No hot throw scored yet">
        <p>Score this candle in a burn trial, one to a room. What each change brought is then listed here.</p>
      </Empty>
    );
  return (
    <ol>
      {rungs.map((rung, index) => (
        <li key={`${rung.since} ${madeWords(units, rung)}`} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-2">
          <span className="figure w-[28px] text-[22px]">{index + 1}</span>
          <span className="min-w-0 flex-1 break-words">
            <span className="font-semibold">{madeWords(units, rung)}</span>
            <span className="block text-[14px] text-soft">
              {units.day(rung.since)}, {countOf(rung.scores, "score", "scores")}
            </span>
          </span>
          <span className="text-right">
            <span className="figure text-[24px]">{units.n(rung.mean, 1)}</span> <span className="text-soft">of 10</span>
            {rung.after ? (
              <span className="block text-[14px]">
                {rung.after.by >= 0 ? "brought +" : "cost "}
                {units.n(rung.after.by, 1)} on number {rung.after.from + 1}
                {rung.after.low !== null && rung.after.high !== null
                  ? ` (likely ${units.n(rung.after.low, 1)} to ${units.n(rung.after.high, 1)})`
                  : ", too few scores for a range"}
              </span>
            ) : index > 0 ? (
              <span className="block text-[14px] text-soft">more than one thing changed</span>
            ) : null}
          </span>
        </li>
      ))}
    </ol>
  );
}

/** The next rung, what it is poured with, and pouring it. */
function Next({ ladder }: { ladder: ThrowLadder }) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [choice, setChoice] = useState(ladder.choices[0]?.value ?? "");
  const [trialId] = useState(() => v7());
  const [message, setMessage] = useState("");
  const [busy, setBusy] = useState(false);
  const { next, choices, product } = ladder;
  if (!next)
    return (
      <p>
        {product.wickId === null
          ? "A candle without a wick has no hot throw."
          : ladder.made.scent === ""
            ? "An unscented candle has no throw."
            : `Every rung of the usual order was tried${ladder.without.length > 0 ? `, or nothing on the shelf does for it: ${ladder.without.map((rung) => rung.says).join("; ")}` : ""}. Go back to the one that scored best.`}
      </p>
    );
  const pour = async () => {
    setBusy(true);
    const outcome = await callAction(pourRung(workshop, { trialId, productId: product.id, choice }));
    setBusy(false);
    if (!outcome.ok) return setMessage(outcome.message);
    router.push(`/burn/${outcome.value.id}`);
  };
  return (
    <>
      <p className="text-[19px] font-bold">
        {next.says[0]?.toUpperCase()}
        {next.says.slice(1)}.
      </p>
      {ladder.without.length > 0 ? (
        <p className="mt-1 text-soft">Passed over, since nothing on the shelf does for it: {ladder.without.map((rung) => rung.says).join("; ")}.</p>
      ) : null}
      {next.id === "cure" ? (
        <p className="mt-2">Score it again when its minimum cure is over. Nothing needs to be poured for that.</p>
      ) : (
        <>
          {choices.length > 1 ? (
            <label className="mt-3 block font-semibold">
              With
              <select className="entry mt-1" value={choice} onChange={(event) => setChoice(event.target.value)}>
                {choices.map((item) => (
                  <option key={item.value} value={item.value}>
                    {item.label}
                  </option>
                ))}
              </select>
            </label>
          ) : (
            <p className="mt-2">With {choices[0]?.label}.</p>
          )}
          <button type="button" className="action-button mt-3" disabled={busy} data-next-step onClick={() => void pour()}>
            {busy ? "Starting the trial" : "Pour this rung as a trial"}
          </button>
          <p className="mt-2 text-[15px] text-soft">Two candles as they are, two with the one change. Their batches then stand on the bench.</p>
        </>
      )}
      <FormMessage>{message}</FormMessage>
    </>
  );
}

/** Which rooms it fills, as scored and as kept, and whether buyers read it. */
function Rooms({ ladder }: { ladder: ThrowLadder }) {
  const workshop = useWorkshop();
  const router = useRouter();
  const kept = ladder.product.fillsRooms;
  const [rooms, setRooms] = useState<readonly string[]>(kept?.rooms ?? ladder.filled);
  const [isTold, setTold] = useState(kept?.isTold ?? false);
  const [message, setMessage] = useState("");
  const names = [...new Set([...ladder.rooms.map((room) => room.name), ...(kept?.rooms ?? [])])];
  const save = async () => {
    const outcome = await callAction(saveFilledRooms(workshop, { productId: ladder.product.id, rooms, isTold }));
    setMessage(outcome.ok ? "" : outcome.message);
    if (outcome.ok) router.refresh();
  };
  const isSaved = kept !== null && kept.isTold === isTold && JSON.stringify([...kept.rooms].sort()) === JSON.stringify([...rooms].sort());
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <fieldset>
        <legend className="sr-only">Rooms that it fills</legend>
        {names.map((name) => {
          const size = ladder.rooms.find((room) => room.name === name)?.size;
          return (
            <label key={name} className="flex items-center gap-2 py-1">
              <input
                type="checkbox"
                className="h-5 w-5"
                checked={rooms.includes(name)}
                onChange={(event) => setRooms((old) => (event.target.checked ? [...old, name] : old.filter((item) => item !== name)))}
              />
              <span>
                {name}
                <span className="text-soft">
                  {size ? `, ${size}: ${targetScore(size)} of 10 is enough` : ""}
                  {ladder.filled.includes(name) ? "; its scores say so" : ""}
                </span>
              </span>
            </label>
          );
        })}
      </fieldset>
      <label className="mt-2 flex items-center gap-2 border-t border-line py-2">
        <input type="checkbox" className="h-5 w-5" checked={isTold} onChange={(event) => setTold(event.target.checked)} />
        Show it on the buyer's page
      </label>
      <button type="submit" className="press" disabled={isSaved}>
        {isSaved ? "Rooms saved" : "Save rooms"}
      </button>
      <FormMessage>{message}</FormMessage>
    </form>
  );
}

/** One candle's way to a stronger throw: what was tried, what it brought, and the next single rung. */
export function StrongerThrow({ ladder }: { ladder: ThrowLadder }) {
  return (
    <PageLayout
      title={`Stronger throw: ${ladder.product.name}`}
      lead="One change at a time, in the order of the trade."
      actions={
        <Link className="press" href={`/products/${ladder.product.id}`}>
          Back to the product
        </Link>
      }
      side={
        <>
          <Aside title="The order">
            Load at 8 %, an oil that is strong out of the bottle, the wax, a larger vessel, the wick, then two points more load. Common practice, no source.
          </Aside>
          <Aside title="More is not stronger">Past what the wax holds, oil sweats out, clogs the wick and soots. No rung goes above that limit.</Aside>
          <Aside title="Score alike">The same people, the same rooms, one candle to a room, after the cure.</Aside>
        </>
      }
    >
      <section className="sheet" aria-label="Next rung">
        <h2>Next</h2>
        <Next key={ladder.next?.id ?? ""} ladder={ladder} />
      </section>
      <section className="mt-6" aria-label="What was tried">
        <h2 className="border-b-[3px] border-ink pb-1">What was tried</h2>
        <Tried rungs={ladder.rungs} />
      </section>
      <section className="mt-6 max-w-[560px]" aria-label="Rooms">
        <h2 className="border-b-[3px] border-ink pb-1">Rooms that it fills</h2>
        <Rooms key={JSON.stringify(ladder.product.fillsRooms)} ladder={ladder} />
      </section>
    </PageLayout>
  );
}
