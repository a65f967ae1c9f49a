import { lazy } from "@/ui/lazy";

/** A pot is seldom opened for its pouring, and never begins with it: it loads this once it stands. */
export const MadeReady = lazy(async () => (await import("./made-ready")).MadeReady);
export const Pouring = lazy(async () => (await import("./pouring")).Pouring);
