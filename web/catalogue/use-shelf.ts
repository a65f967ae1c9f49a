"use client";

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useWorkshop } from "@/log/workshop";
import type { Shelf, Stocks } from "@/server/inventory/shelf";
import type { Catalogue } from "@/server/workshops/search-index";
import { catalogueOf, forgetCatalogue } from "./catalogue";

/** The part of the shelf that a page starts with. */
export interface Few {
  shelf: Shelf;
  stocks: Stocks;
  recentlyUsed: Record<string, string>;
}

/** Returns the rows of both, those of the newer in place of the older. */
const joined = <T extends { id: string }>(older: readonly T[], newer: readonly T[]): T[] => {
  const there = new Set(newer.map((item) => item.id));
  return [...newer, ...older.filter((item) => !there.has(item.id))];
};

/** Returns the shelf as far as this page knows it: a few things at first, all of them once somebody looks for one. */
export function useShelf(few: Few) {
  const { workshopId } = useWorkshop();
  const [whole, setWhole] = useState<Catalogue | null>(null);
  const asked = useRef(false);
  const look = useCallback(() => {
    if (asked.current) return;
    asked.current = true;
    catalogueOf(workshopId).then(setWhole, () => {
      // What is here can be chosen from; the next look asks again.
      asked.current = false;
    });
  }, [workshopId]);
  const again = useCallback(async () => {
    forgetCatalogue(workshopId);
    const next = await catalogueOf(workshopId);
    setWhole(next);
    return next;
  }, [workshopId]);
  // A page that is read again brings newer rows than were looked up before.
  useEffect(() => {
    asked.current = whole !== null;
  }, [whole]);
  return useMemo(() => {
    if (!whole) return { ...few, whole, look, again };
    const shelf = Object.fromEntries(
      Object.entries(whole.shelf).map(([kind, rows]) => [kind, joined(few.shelf[kind as keyof Shelf] as { id: string }[], rows as { id: string }[])]),
    ) as unknown as Shelf;
    return { shelf, stocks: { ...few.stocks, ...whole.stocks }, recentlyUsed: whole.recentlyUsed, whole, look, again };
  }, [few, whole, look, again]);
}
