"use client";

import { lazy } from "@/ui/lazy";
import type { AddProps } from "./add-sheet";

/** Puts something on the shelf beside the form that needs it, and gives it back to that form. */
export const AddBeside = lazy<AddProps>(async () => (await import("./add-sheet")).AddSheet, { typed: true });
