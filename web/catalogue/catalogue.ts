"use client";

import { concerns, type FormulaSpec } from "@hearth/core";
import { subscribeToOthers } from "@/log/live";
import type { Catalogue } from "@/server/workshops/search-index";

/**
 * Everything of a workshop that can be chosen, read once when somebody begins to look, and again when something of the
 * workshop has changed. A page begins with a few things of each kind; the rest comes from here.
 */
const kept = new Map<string, Promise<Catalogue>>();
let listening: (() => void) | null = null;
let listeningTo = "";

/** What the catalogue says: what can be chosen, and how much of it there is. */
const CATALOGUED = ["shelf", "formulas", "products", "stock", "sell"] as const;

const read = async (workshopId: string): Promise<Catalogue> => {
  const answer = await fetch(`/api/workshops/${workshopId}/catalogue`, { cache: "no-store" });
  if (!answer.ok) throw new Error(`Cannot load the shelf (${answer.status}).`);
  return (await answer.json()) as Catalogue;
};

/** The whole of what can be chosen in a workshop. */
export function catalogueOf(workshopId: string): Promise<Catalogue> {
  const there = kept.get(workshopId);
  if (there) return there;
  const reading = read(workshopId);
  kept.set(workshopId, reading);
  reading.catch(() => kept.delete(workshopId));
  if (listeningTo !== workshopId) {
    listening?.();
    listeningTo = workshopId;
    listening = subscribeToOthers(workshopId, (change) => void (concerns(change, CATALOGUED) && kept.delete(workshopId)));
  }
  return reading;
}

/** Returns what a formula says now; null if there is none such. */
export async function readSpec(workshopId: string, formulaId: string): Promise<FormulaSpec | null> {
  const answer = await fetch(`/api/workshops/${workshopId}/formulas/${formulaId}`);
  return answer.ok ? ((await answer.json()) as { spec: FormulaSpec }).spec : null;
}

/** Discards the catalogue that was read, after something was added to the shelf from this page. */
export const forgetCatalogue = (workshopId: string): void => void kept.delete(workshopId);
