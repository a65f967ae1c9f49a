import { later } from "@/ui/later";

/** Seldom what a pot is opened for, and never what it begins with: the pot loads it once it stands. */
export const Pouring = later(async () => (await import("./pouring")).Pouring);
