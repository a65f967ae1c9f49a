import { later } from "@/ui/later";

/** A pot is seldom opened for its pouring, and never begins with it: it loads this once it stands. */
export const MadeReady = later(async () => (await import("./made-ready")).MadeReady);
export const Pouring = later(async () => (await import("./pouring")).Pouring);
