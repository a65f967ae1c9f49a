"use client";

import type { OrderLine, Sellable } from "@hearth/core";
import { Chooser } from "@/forms/chooser";
import { useUnits } from "@/ui/units";

export type Typed = Pick<OrderLine, "sellable" | "packs">;

interface LinesProps {
  lines: Typed[];
  onLines: (lines: Typed[]) => void;
  sellables: readonly Sellable[];
  /** Packs that are there of each, packed or loose. */
  there: Readonly<Record<string, number>>;
  what: "order" | "market" | "set";
}

/** What is asked for, or what is taken to a market: things and their packs, with what is there of them. */
export function Lines({ lines, onLines, sellables, there, what }: LinesProps) {
  const units = useUnits();
  const set = (at: number, change: Partial<Typed>) => onLines(lines.map((line, index) => (index === at ? { ...line, ...change } : line)));
  const counted = what !== "set";
  const options = sellables.map((sellable) => ({
    value: sellable.id,
    name: sellable.name,
    note: [counted ? `${there[sellable.id] ?? 0} in stock` : "", sellable.price === null ? "" : units.money(sellable.price)].filter(Boolean).join(", "),
  }));
  return (
    <div>
      {lines.map((line, at) => {
        const sellable = sellables.find((sellable) => sellable.id === line.sellable);
        const lacks = sellable && counted ? line.packs - (there[sellable.id] ?? 0) : 0;
        return (
          <div key={line.sellable || `new ${at}`} className="mb-1 grid grid-cols-[minmax(0,1fr)_96px_auto] items-start gap-x-2">
            <Chooser
              label={what === "market" ? "To take" : "What"}
              of={String(at + 1)}
              value={line.sellable}
              options={options.filter((option) => option.value === line.sellable || !lines.some((other) => other.sellable === option.value))}
              onValue={(id) => set(at, { sellable: id })}
              hint={lacks > 0 ? <strong className="text-hot">▲ {lacks} more than in stock</strong> : undefined}
            />
            <div>
              <label htmlFor={`packs-${at}`} className="mb-1 block text-[15px] font-semibold">
                {counted ? "Packs" : "Candles"}
                <span className="sr-only"> of {sellable?.name ?? `line ${at + 1}`}</span>
              </label>
              <input
                id={`packs-${at}`}
                className="entry"
                inputMode="numeric"
                value={line.packs || ""}
                onChange={(event) => set(at, { packs: Math.min(100_000, Number.parseInt(event.target.value.replace(/\D/g, ""), 10) || 0) })}
              />
            </div>
            <button
              type="button"
              className="press mt-[26px]"
              aria-label={`Leave out ${sellable?.name ?? `line ${at + 1}`}`}
              onClick={() => onLines(lines.filter((_, index) => index !== at))}
            >
              ✕
            </button>
          </div>
        );
      })}
      <button type="button" className="press mt-1" onClick={() => onLines([...lines, { sellable: "", packs: 1 }])}>
        Add a line
      </button>
    </div>
  );
}

/** Returns lines as they are kept: with the name and price of now; what was not chosen is left out. */
export const linesOf = (typed: readonly Typed[], sellables: readonly Sellable[], before: readonly OrderLine[] = []): OrderLine[] =>
  typed.flatMap(({ sellable: id, packs }) => {
    const kept = before.find((item) => item.sellable === id);
    const sellable = sellables.find((sellable) => sellable.id === id);
    if (packs <= 0) return [];
    return kept ? [{ ...kept, packs }] : sellable ? [{ sellable: id, name: sellable.name, packs, price: sellable.price }] : [];
  });
