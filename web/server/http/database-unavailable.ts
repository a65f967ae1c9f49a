import { causesOf } from "@/data/causes";

const AWAY = "The database is not available. What you typed is kept: try again in a moment.";
const RESTORING = "A backup is being restored, so nothing can be written until it is done. Nothing you typed is lost: try again in a minute.";
const FULL = "The disk is full, so nothing can be written. Nothing you typed is lost: free some space, then try again.";

/** Returns what a maker is told while nothing can be written: the database is away, too busy, being restored, or has no room. */
export function unavailableMessage(error: unknown): string {
  for (const { code } of causesOf(error)) {
    if (code === "53100") return FULL;
    // PostgreSQL's code for a transaction that may only read.
    if (code === "25006") return RESTORING;
  }
  return AWAY;
}
