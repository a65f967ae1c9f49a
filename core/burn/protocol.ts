import { MIN_SESSIONS } from "./limits";
import type { Protocol, ProtocolSession } from "./schema";

/**
 * Test protocols to start from. Common practice, no source; the rests between sessions are our own choice: a candle is lit again once it is
 * cold and hard.
 */
export const PROTOCOLS: readonly (Protocol & { id: string; says: string })[] = [
  {
    id: "long-first",
    name: "A long first day",
    says: "Looks at 1¼, 2, 3 and 4 hours on the first day; three hours on the next; two looks at the third session; then to the end.",
    sessions: [
      { checks: [75, 120, 180, 240], minutes: 240 },
      { checks: [180], minutes: 180 },
      { checks: [120, 180], minutes: 180 },
    ],
    restHours: 12,
    least: MIN_SESSIONS,
    toEnd: true,
  },
  {
    id: "hourly",
    name: "Every hour, four hours",
    says: "Checks at 1, 2, 3 and 4 hours, at least three sessions, then to the end. The first hour is misleading.",
    sessions: [{ checks: [60, 120, 180, 240], minutes: 240 }],
    restHours: 8,
    least: MIN_SESSIONS,
    toEnd: true,
  },
  {
    id: "short-look",
    name: "Half jars, an early look",
    says: "Two and four hours, three sessions. For half-filled test candles: the best of them follow in full jars.",
    sessions: [
      { checks: [120, 240], minutes: 240 },
      { checks: [120, 240], minutes: 240 },
      { checks: [120, 240], minutes: 240 },
    ],
    restHours: 8,
    least: MIN_SESSIONS,
    toEnd: false,
  },
];

/** Returns what the n-th session (from 0) asks for; null if the protocol has come to its end. */
export const sessionOf = ({ sessions, toEnd }: Pick<Protocol, "sessions" | "toEnd">, n: number): ProtocolSession | null =>
  sessions[n] ?? (toEnd ? (sessions.at(-1) ?? null) : null);

const spoken = (minute: number): string => `${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, "0")}`;
/** Returns one line a session: "1:15 2:00 3:00, out 4:00". */
export const writeSessions = (sessions: readonly ProtocolSession[]): string =>
  sessions.map((session) => `${session.checks.map(spoken).join(" ")}${session.checks.length > 0 ? ", " : ""}out ${spoken(session.minutes)}`).join("\n");
