import type { Component } from "../recipe/component-schema";
import type { Milligrams } from "../units/mass";

/**
 * Returns what a scale that is tared once shows after each of the oils of a pot, in the order of weighing, by their ids. The amounts of the oils sum to
 * their total exactly, so the last is that total. Empty where there are fewer than two oils, or they are weighed on different scales.
 */
export function runningTotals(parts: readonly Component[]): Map<string, Milligrams> {
  const oils = parts.filter((part) => part.kind === "fragrance");
  const totals = new Map<string, Milligrams>();
  if (oils.length < 2 || oils.some((oil) => oil.scale.id !== oils[0]?.scale.id)) return totals;
  let sum = 0;
  for (const oil of oils) {
    sum += oil.mg;
    totals.set(oil.id, sum);
  }
  return totals;
}
