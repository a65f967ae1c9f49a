import { MAX_CHECKS, MAX_SESSION_MINUTES } from "./limits";

/** Returns what is wrong with the times of a session, in minutes after lighting; null if nothing is. */
export function sessionFault({ checks, minutes }: { checks: readonly number[]; minutes: number }): string | null {
  const times = [...checks, minutes];
  if (checks.length > MAX_CHECKS) return `At most ${MAX_CHECKS} checks in a session.`;
  if (times.some((minute) => minute < 1)) return "A check is at least one minute after lighting.";
  if (times.some((minute) => minute > MAX_SESSION_MINUTES)) return "A session is at most one day.";
  const isInOrder = checks.every((check, index) => check <= minutes && (index === 0 || check > (checks[index - 1] as number)));
  return isInOrder ? null : "Checks must be in order, and before the end of the session.";
}
