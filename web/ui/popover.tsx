"use client";

import type { PopoverProps } from "./drawer";
import { lazy } from "./lazy";

/** A sheet beside what it belongs to, as long as it is shown. */
export const PopoverBox = lazy<PopoverProps>(async () => (await import("./drawer")).PopoverContent);
