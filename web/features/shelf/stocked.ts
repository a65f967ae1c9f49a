"use client";

import { parseDensity, type StockedKind, writeNumber } from "@hearth/core";
import { useState } from "react";

export interface StockedThing {
  kind: StockedKind;
  id: string;
  name: string;
  density: number | null;
}

/** Holds the typed density of a material, which may be missing, and its parsed value. */
export function useDensity(stockedThing: StockedThing) {
  const [text, setText] = useState(stockedThing.density === null ? "" : writeNumber(stockedThing.density / 1e6, 4));
  const read = text.trim() === "" ? null : parseDensity(text);
  return { text, setText, value: read?.ok ? read.value : null, fault: read && !read.ok ? read.message : "" };
}

/** The kinds whose suppliers give safety data sheets. */
export const SHEETED = ["wax", "fragrance", "dye", "additive"] as const;
export type SheetedKind = (typeof SHEETED)[number];
