"use client";

import { later } from "./later";
import type { PopProps } from "./pop-sheet";

/** A sheet beside what it belongs to, as long as it is shown. */
export const Pop = later<PopProps>(async () => (await import("./pop-sheet")).PopSheet);
