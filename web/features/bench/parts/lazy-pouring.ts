import { lazy } from "@/ui/lazy";

/** Loads the checklist and the view of pouring only once a pot is shown: no pot begins with them. */
export const MadeReady = lazy(async () => (await import("./made-ready")).MadeReady);
export const Pouring = lazy(async () => (await import("./pouring")).Pouring);
