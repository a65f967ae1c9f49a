"use client";

import { type BoxFit, boxesFor, fitInBox, type Packaging, type PackedContainer } from "@hearth/core";
import { Chooser } from "@/forms/chooser";
import { suggestedFirst } from "@/forms/matches";
import type { Shelf, Stocks } from "@/server/inventory/shelf";
import { BoxPlan } from "@/ui/box-plan";
import { useUnits } from "@/ui/units";

export const FIT_WORDS: Record<BoxFit["verdict"], string> = {
  fits: "✓ fits",
  loose: "▲ loose fit",
  tight: "▲ tight fit",
  "too small": "✕ does not fit",
};

type Pack = Shelf["packs"][number];
const sized = (item: Pack): item is Pack & { lengthUm: number; widthUm: number; heightUm: number } =>
  item.kind === "box" && item.lengthUm !== null && item.widthUm !== null && item.heightUm !== null;

/** How a pack stands in its box, with the clearance on each side. */
export function BoxShown({ box, containers, guessed }: { box: Pack | undefined; containers: readonly PackedContainer[]; guessed: boolean }) {
  const units = useUnits();
  if (!box) return null;
  if (!sized(box)) return <p className="text-[15px] text-soft">The inner size of {box.name} is not on the shelf. Add it there to see a drawing here.</p>;
  const fit = fitInBox(containers, box);
  if (!fit) return null;
  const sides = [
    ["length", fit.clearance.length],
    ["width", fit.clearance.width],
    ["height", fit.clearance.height],
  ] as const;
  const message = `${box.name}: ${FIT_WORDS[fit.verdict].slice(2)}`;
  return (
    <figure className="my-2">
      <BoxPlan box={box} fit={fit} says={message} />
      <figcaption className="mt-1 text-[15px]">
        <strong className={fit.verdict === "fits" ? "text-inside" : "text-hot"}>{FIT_WORDS[fit.verdict]}</strong>{" "}
        <span className="text-soft">
          {sides.map(([side, um]) => `${side} ${um < 0 ? "−" : ""}${units.len(Math.abs(um))}`).join(", ")}{" "}
          {fit.verdict === "too small" ? "clearance (− too small)" : "clearance"}
          {fit.layers > 1 ? `; ${fit.layers} layers` : ""}
          {guessed ? ". The outside of a vessel is not measured, so a wall thickness is assumed." : ""}
        </span>
      </figcaption>
    </figure>
  );
}

interface PackagingFieldsProps {
  value: Packaging;
  onValue: (value: Packaging) => void;
  shelf: Pick<Shelf, "packs">;
  stocks: Stocks;
  recentlyUsed: Record<string, string>;
  onLook: () => void;
  containers: readonly PackedContainer[];
  guessed: boolean;
}

/** What one pack takes of the shelf: its box, chosen by what goes in, and lids, labels, tape. */
export function PackagingFields({ value, onValue, shelf, stocks, recentlyUsed, onLook, containers, guessed }: PackagingFieldsProps) {
  const there = shelf.packs.filter((pack) => !pack.archived);
  const boxes = there.filter((item) => item.kind === "box");
  const ranked = boxesFor(containers, boxes.filter(sized));
  const rest = boxes.filter((box) => !ranked.some((other) => other.box.id === box.id));
  const onHand = (id: string) => (stocks[id] ? `${stocks[id]?.onHand} on hand` : "");
  const options = [
    { value: "", name: "no box", note: "" },
    ...ranked.map(({ box, fit }) => ({ value: box.id, name: box.name, note: [FIT_WORDS[fit.verdict].slice(2), onHand(box.id)].filter(Boolean).join(", ") })),
    ...rest.map((item) => ({ value: item.id, name: item.name, note: "size not known" })),
  ];
  const parts = suggestedFirst(
    there.filter((item) => item.kind !== "box"),
    recentlyUsed,
    (id) => stocks[id]?.onHand,
  );
  const set = (at: number, change: Partial<Packaging["parts"][number]>) =>
    onValue({ ...value, parts: value.parts.map((part, index) => (index === at ? { ...part, ...change } : part)) });
  return (
    <div>
      <Chooser label="Box" value={value.boxId ?? ""} options={options} onLook={onLook} onValue={(id) => onValue({ ...value, boxId: id || null })} />
      <BoxShown box={there.find((item) => item.id === value.boxId)} containers={containers} guessed={guessed} />
      {value.parts.map((part, at) => (
        <div key={part.id || at} className="grid grid-cols-[minmax(0,1fr)_84px_auto] items-start gap-x-2">
          <Chooser
            label={at === 0 ? "Lids, labels, tape" : "And"}
            of={String(at + 1)}
            value={part.id}
            options={parts.map((part) => ({ value: part.id, name: part.name, note: [part.kind, onHand(part.id)].filter(Boolean).join(", ") }))}
            onLook={onLook}
            onValue={(id) => set(at, { id })}
          />
          <div>
            <label htmlFor={`part-${at}`} className="mb-1 block text-[15px] font-semibold">
              A pack<span className="sr-only"> takes of part {at + 1}</span>
            </label>
            <input
              id={`part-${at}`}
              className="entry"
              inputMode="numeric"
              value={part.count || ""}
              onChange={(event) => set(at, { count: Math.min(10_000, Number.parseInt(event.target.value.replace(/\D/g, ""), 10) || 0) })}
            />
          </div>
          <button
            type="button"
            className="press mt-[26px]"
            aria-label={`Leave out part ${at + 1}`}
            onClick={() => onValue({ ...value, parts: value.parts.filter((_, index) => index !== at) })}
          >
            ✕
          </button>
        </div>
      ))}
      <button
        type="button"
        className="press mt-2"
        onClick={() => {
          onLook();
          onValue({ ...value, parts: [...value.parts, { id: "", count: 1 }] });
        }}
      >
        Add a lid, label or tape
      </button>
    </div>
  );
}

/** Returns what is kept of it: parts without a name or a count are left out. */
export const packagingOf = (value: Packaging): Packaging => ({ boxId: value.boxId, parts: value.parts.filter((part) => part.id !== "" && part.count > 0) });
