import { readFileSync } from "node:fs";

/**
 * Returns the time now, as ISO text. HEARTH_CLOCK_FILE names a file that holds the time instead: tests and screenshots freeze
 * the clock with it and move it on.
 */
export function now(): string {
  const file = process.env.HEARTH_CLOCK_FILE;
  return file ? new Date(readFileSync(file, "utf8").trim()).toISOString() : new Date().toISOString();
}

/** Returns whether the clock stands still, so that the interface does not tick on by itself. */
export const clockIsFrozen = (): boolean => Boolean(process.env.HEARTH_CLOCK_FILE);
