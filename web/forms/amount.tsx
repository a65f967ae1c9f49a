"use client";

import { type Amount, type Density, good, parseAmount, parseCount, parseMass, writeNumber } from "@hearth/core";
import { type Formats, useUnits } from "@/ui/units";
import type { FieldRule } from "./fields";

/** How an amount of one material is typed: pieces, a weight, or for oils also a volume. */
export interface Measured {
  name: string;
  counted: boolean;
  /** Oils may be typed as a volume; null if the density is not known. Undefined for everything else. */
  density?: Density | null | undefined;
}

/** Returns the rule of a field that takes an amount of a material. Zero is taken where `zero` says so. */
export function amountRule(measured: Measured, units: Formats, initial = "", zero = false): FieldRule<Amount> {
  return {
    initial,
    parse: (text) => {
      if (zero && /^0+([.,]0+)?\s*[a-z]*$/i.test(text.trim())) return good({ mg: 0, volume: null });
      if (measured.counted) {
        const n = parseCount(text, { least: zero ? 0 : 1, most: 10_000_000, name: "pieces" });
        return n.ok ? good({ mg: n.value, volume: null }) : n;
      }
      if (measured.density !== undefined) return parseAmount(text, { unit: units.mass, density: measured.density, name: measured.name });
      const mass = parseMass(text, { unit: units.mass });
      return mass.ok ? good({ mg: mass.value, volume: null }) : mass;
    },
    // A volume is told at length, with the mistake that was near.
    echo: (amount) => (measured.counted || amount.volume ? "" : units.g(amount.mg)),
  };
}

/** What became of a volume that was typed: its weight, and the mistake that was near. */
export function VolumeNote({ amount, density }: { amount: Amount | undefined; density: Density | null }) {
  const units = useUnits();
  if (!amount?.volume || density === null) return null;
  const { ml, takenForMg, ofMistake, amount: typed, unit } = amount.volume;
  const off = takenForMg - amount.mg;
  return (
    <p role="status" className="mt-1 bg-paper px-3 py-2 text-[15px]">
      {writeNumber(typed, 3)} {unit} {units.mass === "oz" ? `of water weighs ${units.g(ml * 1_000)} ` : unit === "ml" ? "" : `is ${units.volume(ml)} `}×{" "}
      {units.density(density)} = <span className="figure text-[22px]">{units.about(amount.mg)}</span>. With {ofMistake} it would have been{" "}
      {units.about(takenForMg)}: <strong>{off === 0 ? "the same by chance" : `${units.about(Math.abs(off))} too ${off > 0 ? "much" : "little"}`}</strong>.
    </p>
  );
}
