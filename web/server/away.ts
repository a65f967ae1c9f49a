import { causesOf } from "@/data/causes";

const AWAY = "The database is away just now. Nothing you typed is lost: try again in a moment.";
const FULL = "The disk is full, so nothing can be written. Nothing you typed is lost: free some space, then try again.";

/** What a maker is told while nothing can be written: the database is away, too busy, or has no room. */
export function awayWords(error: unknown): string {
  for (const { code } of causesOf(error)) if (code === "53100") return FULL;
  return AWAY;
}
