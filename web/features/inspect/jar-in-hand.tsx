"use client";

import {
  defectOf,
  EXTENT_WORDS,
  EXTENTS,
  type Extent,
  type GradingRules,
  gradeOf,
  PLACE_WORDS,
  PLACES,
  type Place,
  type SeenFlaw,
  toldOf,
  type WallSpot,
} from "@hearth/core";
import { RadioGroup } from "radix-ui";
import { useState } from "react";
import { FormMessage } from "@/ui/form-message";
import { press } from "@/ui/variants";
import { flawsAt, type InHand, withFlaw } from "./model";

/** How far a flaw goes, as seen from above: the dark part of the round. */
function ExtentPicture({ extent }: { extent: Extent }) {
  const share = { speck: 0.004, patch: 0.1, third: 0.33, most: 0.6 }[extent];
  const r = 20;
  const angle = share * 2 * Math.PI;
  const [x, y] = [24 + r * Math.sin(angle), 24 - r * Math.cos(angle)];
  return (
    <svg width={48} height={48} viewBox="0 0 48 48" aria-hidden="true" className="shrink-0">
      <circle cx={24} cy={24} r={r} fill="var(--color-wax)" stroke="var(--color-ink)" strokeWidth={2.5} />
      {extent === "speck" ? (
        <circle cx={33} cy={17} r={2.5} fill="var(--color-ink)" />
      ) : (
        <path d={`M24 24 L24 ${24 - r} A${r} ${r} 0 ${share > 0.5 ? 1 : 0} 1 ${x.toFixed(2)} ${y.toFixed(2)} Z`} fill="var(--color-ink)" />
      )}
    </svg>
  );
}

const whereOf = (flaw: SeenFlaw) => (flaw.wall ? `wall ${flaw.wall.side}, ${flaw.wall.height}` : PLACE_WORDS[flaw.place]);

interface JarInHandProps {
  /** Which jar it is, of how many. */
  number: number;
  filled: number;
  left: number;
  hand: InHand;
  onHand: (hand: InHand) => void;
  place: Place | null;
  wall: WallSpot | undefined;
  onPlace: (place: Place | null, wall?: WallSpot) => void;
  rules: GradingRules;
  /** What the jar before showed; null if there is none. */
  before: readonly SeenFlaw[] | null;
  /** Its wax and container, which say what flaws it can have. */
  of: Parameters<typeof flawsAt>[1];
  put: (flaws: readonly SeenFlaw[], jars: number) => Promise<string>;
  /** Records all that are left as fine, of whatever vessel, and ends the inspection. */
  allFine: { label: string; run: () => Promise<void> };
}

/** Which flaw it is, of those that stand at the place that was tapped or elsewhere, and how far it goes. */
function WhichFlaw({
  choices,
  defect,
  setDefect,
  onExtent,
  onCancel,
}: {
  choices: ReturnType<typeof flawsAt>;
  defect: string;
  setDefect: (id: string) => void;
  onExtent: (extent: Extent) => void;
  onCancel: () => void;
}) {
  const known = toldOf(defect);
  return (
    <div className="mt-3">
      <RadioGroup.Root aria-label="Which flaw" value={defect} onValueChange={setDefect} className="flex flex-wrap gap-2">
        {choices.here.map((defect) => (
          <RadioGroup.Item
            key={defect.id}
            value={defect.id}
            className="min-h-[56px] border-2 border-ink bg-sheet px-3 font-semibold data-[state=checked]:bg-ink data-[state=checked]:text-sheet"
          >
            {defect.classes.includes("S") ? "⚠ " : ""}
            {defect.name}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      <div className="mt-2 flex flex-wrap items-end justify-between gap-2">
        <label className="text-[15px]">
          Other flaw{" "}
          <select
            className="entry !w-auto"
            value={choices.elsewhere.some((item) => item.id === defect) ? defect : ""}
            onChange={(event) => setDefect(event.target.value)}
          >
            <option value="">choose</option>
            {choices.elsewhere.map((defect) => (
              <option key={defect.id} value={defect.id}>
                {defect.name}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="press" onClick={onCancel}>
          Cancel
        </button>
      </div>
      {known ? (
        <>
          <p className="mt-2 text-[15px] text-soft">{known.looks}</p>
          <div className="mt-2 grid grid-cols-2 gap-2 sm:grid-cols-4">
            {EXTENTS.map((extent) => (
              <button
                key={extent}
                type="button"
                className="press !flex min-h-[72px] items-center gap-2 !px-2 text-left leading-tight"
                onClick={() => onExtent(extent)}
              >
                <ExtentPicture extent={extent} />
                <span>{EXTENT_WORDS[extent]}</span>
              </button>
            ))}
          </div>
        </>
      ) : null}
    </div>
  );
}

/** The flaws that were logged of the jar in hand. */
function OnThisJar({ hand, onHand }: Pick<JarInHandProps, "hand" | "onHand">) {
  return hand.flaws.length > 0 ? (
    <ul className="mt-3">
      {hand.flaws.map((flaw) => (
        <li key={`${flaw.defect}${whereOf(flaw)}`} className="flex flex-wrap items-center gap-x-3 border-b border-line">
          <strong className={defectOf(flaw.defect)?.classes.includes("S") ? "text-safety" : ""}>{defectOf(flaw.defect)?.name}</strong>
          <span>
            {whereOf(flaw)}, {EXTENT_WORDS[flaw.extent]}
          </span>
          <button
            type="button"
            className="ml-auto min-h-[48px] underline"
            aria-label={`Remove: ${defectOf(flaw.defect)?.name}`}
            onClick={() => onHand({ ...hand, flaws: hand.flaws.filter((item) => item !== flaw) })}
          >
            Remove
          </button>
        </li>
      ))}
    </ul>
  ) : (
    <p className="mt-2 text-soft">Tap the drawing where the flaw is, or mark the jar as fine.</p>
  );
}

/** How many jars are like the one in hand. */
function Alike({ hand, left, onHand }: Pick<JarInHandProps, "hand" | "left" | "onHand">) {
  return (
    <div className="mt-3 flex flex-wrap items-center gap-2">
      <span className="font-semibold">jars with this result</span>
      <span className="flex flex-nowrap items-center gap-2">
        <button
          type="button"
          className="press min-w-[56px]"
          aria-label="One fewer alike"
          disabled={hand.alike <= 1}
          onClick={() => onHand({ ...hand, alike: hand.alike - 1 })}
        >
          −
        </button>
        <output className="figure min-w-[44px] text-center text-[28px]">{hand.alike}</output>
        <button
          type="button"
          className="press min-w-[56px]"
          aria-label="One more alike"
          disabled={hand.alike >= left}
          onClick={() => onHand({ ...hand, alike: hand.alike + 1 })}
        >
          +
        </button>
      </span>
    </div>
  );
}

/** The jar that is held to the light: where, which, how far; and how many are like it. */
export function JarInHand({ number, filled, left, hand, onHand, place, wall, onPlace, rules, before, of, put, allFine }: JarInHandProps) {
  const [defect, setDefect] = useState("");
  const [message, setMessage] = useState("");
  const [busy, setBusy] = useState(false);
  const choices = place ? flawsAt(place, of) : null;
  const down = async (flaws: readonly SeenFlaw[], jars: number) => {
    setBusy(true);
    setMessage(await put(flaws, jars));
    setBusy(false);
    setDefect("");
  };
  const add = (extent: Extent) => {
    if (!place || !defect) return;
    onHand(withFlaw(hand, { defect, place, ...(place === "side" && wall ? { wall } : {}), extent }));
    setDefect("");
    onPlace(null);
  };
  const grade = gradeOf(hand.flaws, rules);
  const untap = () => {
    setDefect("");
    onPlace(null);
  };
  return (
    <section aria-label="The jar in the hand" onKeyDown={(event) => event.key === "Escape" && place && untap()}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <span className="figure text-[44px] leading-none">jar {number}</span>
        <span className="text-[19px] text-soft">of {filled}</span>
        {hand.flaws.length > 0 ? (
          <span className={`ml-auto text-[20px] font-bold ${grade === "never sell" ? "text-safety" : ""}`}>
            {grade === "never sell" ? "⚠ never sell" : grade}
          </span>
        ) : null}
      </div>
      <RadioGroup.Root
        aria-label="Where"
        value={place ?? ""}
        onValueChange={(next) => {
          setDefect("");
          onPlace(next as Place);
        }}
        className="mt-2 grid grid-cols-4"
      >
        {PLACES.map((item) => (
          <RadioGroup.Item
            key={item}
            value={item}
            onClick={(event) => {
              if (item !== place) return;
              event.preventDefault();
              untap();
            }}
            className="-mr-[2px] min-h-[56px] border-2 border-ink bg-sheet font-semibold data-[state=checked]:bg-ink data-[state=checked]:text-sheet"
          >
            {PLACE_WORDS[item]}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      {choices ? (
        <WhichFlaw choices={choices} defect={defect} setDefect={setDefect} onExtent={add} onCancel={untap} />
      ) : (
        <>
          <OnThisJar hand={hand} onHand={onHand} />
          <Alike hand={hand} left={left} onHand={onHand} />
          <div className="mt-3 grid gap-2 sm:grid-cols-2">
            <button
              type="button"
              className={press({ size: "gloved" })}
              disabled={busy || left === 0}
              onClick={() => void down(hand.flaws, Math.min(hand.alike, left))}
            >
              {hand.flaws.length === 0 ? (hand.alike === 1 ? "Fine, next jar" : `These ${hand.alike} are fine`) : "Save, next jar"}
            </button>
            {before && hand.flaws.length === 0 ? (
              <button
                type="button"
                className={press({ size: "gloved" })}
                disabled={busy || left === 0}
                onClick={() => void down(before, Math.min(hand.alike, left))}
              >
                Same as the previous jar
              </button>
            ) : null}
            {hand.flaws.length === 0 && left > 0 ? (
              <button type="button" className={press({ size: "gloved" })} disabled={busy} onClick={() => void allFine.run()}>
                {allFine.label}
              </button>
            ) : null}
          </div>
        </>
      )}
      <FormMessage className="mt-2">{message}</FormMessage>
    </section>
  );
}
