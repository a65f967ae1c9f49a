"use client";

import { type EmbedChoice, MAX_EMBEDS, notToBeLaidIn } from "@hearth/core";
import { Chooser } from "@/forms/chooser";
import type { Shelf, Stocks } from "@/server/inventory/shelf";
import { useUnits } from "@/ui/units";

interface EmbedFieldsProps {
  /** What the candle is called, where several stand on a page. */
  of?: string;
  value: readonly EmbedChoice[];
  onValue: (value: EmbedChoice[]) => void;
  embeds: Shelf["embeds"];
  stocks?: Stocks;
  onLook: () => void;
  error?: string;
}

/** What is laid into one candle: shells, stones, sand, figures, each with its number. What burns is not offered; it is said why. */
export function EmbedFields({ of = "", value, onValue, embeds, stocks = {}, onLook, error = "" }: EmbedFieldsProps) {
  const units = useUnits();
  const refused = embeds.flatMap((embed) => (embed.archived ? [] : (notToBeLaidIn(embed) ?? [])));
  const options = embeds
    .filter((embed) => !embed.archived && notToBeLaidIn(embed) === null)
    .map((embed) => ({
      value: embed.id,
      name: embed.name,
      note: [units.volume(embed.volumeUl / 1_000), stocks[embed.id] ? `${stocks[embed.id]?.onHand} on hand` : ""].filter(Boolean).join(", "),
    }));
  const set = (at: number, change: Partial<EmbedChoice>) => onValue(value.map((embed, index) => (index === at ? { ...embed, ...change } : embed)));
  const suffix = of ? ` of ${of}` : "";
  return (
    <div>
      {value.map((embed, at) => (
        <div key={embed.id || at} className="grid grid-cols-[minmax(0,1fr)_84px_auto] items-start gap-x-2">
          <Chooser
            label={at === 0 ? "Embed" : `Embed ${at + 1}`}
            {...(of ? { of: `of ${of}` } : {})}
            value={embed.id}
            options={options}
            onLook={onLook}
            onValue={(id) => set(at, { id })}
            error={at === 0 ? error : ""}
          />
          <label>
            <span className="mb-1 block text-[15px] font-semibold">
              In each<span className="sr-only">{`${suffix}, embed ${at + 1}`}</span>
            </span>
            <input
              className="entry"
              inputMode="numeric"
              value={embed.count || ""}
              onChange={(event) => set(at, { count: Math.min(1_000, Number.parseInt(event.target.value.replace(/\D/g, ""), 10) || 0) })}
            />
          </label>
          <button
            type="button"
            className="press mt-[26px]"
            aria-label={`Leave out embed ${at + 1}${suffix}`}
            onClick={() => onValue(value.filter((_, index) => index !== at))}
          >
            ✕
          </button>
        </div>
      ))}
      {value.length < MAX_EMBEDS ? (
        <button
          type="button"
          className="press mt-2"
          onClick={() => {
            onLook();
            onValue([...value, { id: "", count: 1 }]);
          }}
        >
          Add an embed<span className="sr-only">{suffix}</span>
        </button>
      ) : null}
      {value.length > 0 ? (
        <p className="mt-1 text-[14px] text-soft">
          {options.length === 0 ? "None is on the shelf yet. " : ""}Their volume comes off the fill.
          {refused.length > 0 ? ` Not offered: ${refused.join(" ")}` : ""}
        </p>
      ) : null}
    </div>
  );
}

/** Returns what is kept of it: lines without a name or a number are left out. */
export const embedChoicesOf = (value: readonly EmbedChoice[]): EmbedChoice[] => value.filter((embed) => embed.id !== "" && embed.count > 0);
