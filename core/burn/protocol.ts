import { z } from "zod";
import { bad, good, type Parsed } from "../units/parsed";
import { LEAST_SESSIONS } from "./marks";

const minutes = z.number().int().min(1, "A look is at least one minute after lighting.").max(1_440, "No session goes on for more than a day.");
export const protocolSession = z
  .object({
    looks: z.array(minutes).max(24, "At most 24 looks in a session."),
    /** When it is put out, in minutes after lighting. */
    minutes,
  })
  .refine((one) => one.looks.every((look, at) => look <= one.minutes && (at === 0 || look > (one.looks[at - 1] as number))), {
    path: ["looks"],
    error: "Looks follow one another, and none comes after it is put out.",
  });
export type ProtocolSession = z.output<typeof protocolSession>;

/** How candles are burned: sessions with their looks, the rest between, and how far it goes. */
export const protocol = z.object({
  name: z.string().trim().min(1, "Give it a name.").max(80),
  sessions: z.array(protocolSession).min(1, "At least one session.").max(20),
  restHours: z.number().min(0, "A rest is not below nothing.").max(336, "A rest of more than two weeks is none."),
  /** No verdict stands on fewer. */
  least: z.number().int().min(1).max(20),
  /** After the last session that is written down, that one again and again, to the end of the wax. */
  toEnd: z.boolean(),
});
export type Protocol = z.output<typeof protocol>;

/** Ready-made; common practice, no source. The rests are ours: a candle is lit again when it is cold and hard. */
export const PROTOCOLS: readonly (Protocol & { id: string; says: string })[] = [
  {
    id: "long-first",
    name: "A long first day",
    says: "Looks at 1¼, 2, 3 and 4 hours on the first day; three hours on the next; two looks at the third session; then to the end.",
    sessions: [
      { looks: [75, 120, 180, 240], minutes: 240 },
      { looks: [180], minutes: 180 },
      { looks: [120, 180], minutes: 180 },
    ],
    restHours: 12,
    least: LEAST_SESSIONS,
    toEnd: true,
  },
  {
    id: "hourly",
    name: "Every hour, four hours",
    says: "Looks at 1, 2, 3 and 4 hours, at least three sessions, then to the end. What is seen in the first hour misleads.",
    sessions: [{ looks: [60, 120, 180, 240], minutes: 240 }],
    restHours: 8,
    least: LEAST_SESSIONS,
    toEnd: true,
  },
  {
    id: "short-look",
    name: "Half jars, an early look",
    says: "Two and four hours, three sessions. For half-filled testers: the best of them follow in full jars.",
    sessions: [
      { looks: [120, 240], minutes: 240 },
      { looks: [120, 240], minutes: 240 },
      { looks: [120, 240], minutes: 240 },
    ],
    restHours: 8,
    least: LEAST_SESSIONS,
    toEnd: false,
  },
];

/** What the n-th session (from 0) asks for; null where the protocol has come to its end. */
export const sessionOf = ({ sessions, toEnd }: Pick<Protocol, "sessions" | "toEnd">, n: number): ProtocolSession | null =>
  sessions[n] ?? (toEnd ? (sessions.at(-1) ?? null) : null);

const spoken = (minute: number): string => `${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, "0")}`;
/** One line a session: "1:15 2:00 3:00, out 4:00". */
export const writeSessions = (sessions: readonly ProtocolSession[]): string =>
  sessions.map((one) => `${one.looks.map(spoken).join(" ")}${one.looks.length > 0 ? ", " : ""}out ${spoken(one.minutes)}`).join("\n");

/** A moment of a session as makers write it: "1:15", "1¼", "2", "2.5 h", "75 min". Hours where nothing is said. */
function minuteOf(text: string): number | null {
  const plain = text.trim().toLowerCase().replace(/½/, ".5").replace(/¼/, ".25").replace(/¾/, ".75").replace(",", ".");
  const clock = /^(\d{1,2}):([0-5]\d)$/.exec(plain);
  if (clock) return Number(clock[1]) * 60 + Number(clock[2]);
  const said = /^(\d*\.?\d+)\s*(h|hours?|min|minutes?)?$/.exec(plain);
  if (!said) return null;
  const value = Number(said[1]);
  return Math.round(said[2]?.startsWith("m") ? value : value * 60);
}

/** Reads sessions as they are typed, one a line: the looks, and after “out” when it is put out (else with the last look). */
export function readSessions(text: string): Parsed<ProtocolSession[]> {
  const sessions: ProtocolSession[] = [];
  const lines = text.split("\n").filter((line) => line.trim() !== "");
  if (lines.length === 0) return bad("empty", "Write at least one session: its looks, like “1:15 2 3 4”.");
  for (const [at, line] of lines.entries()) {
    const [looksText = "", outText] = line.split(/\bout\b/i);
    const words = looksText.split(/[\s;]+|,\s+|,$/).filter(Boolean);
    const looks = words.map(minuteOf);
    const wrong = words[looks.indexOf(null)];
    if (wrong !== undefined) return bad("not-understood", `“${wrong}” in line ${at + 1} is no time. Write looks like “1:15 2 3 4”.`);
    const out = outText === undefined ? (looks.at(-1) ?? null) : minuteOf(outText);
    if (out === null) return bad("not-understood", `When it is put out cannot be read in line ${at + 1}. Write “out 4:00”.`);
    const parsed = protocolSession.safeParse({ looks, minutes: out });
    if (!parsed.success) return bad("out-of-range", `Line ${at + 1}: ${parsed.error.issues[0]?.message ?? "cannot be read."}`);
    sessions.push(parsed.data);
  }
  return sessions.length > 20 ? bad("too-long", "At most 20 sessions are written down; the last one repeats itself to the end.") : good(sessions);
}
