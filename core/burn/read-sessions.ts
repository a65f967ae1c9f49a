import { bad, good, type Parsed } from "../units/parsed";
import type { ProtocolSession } from "./schema";
import { sessionFault } from "./session-fault";

/** Returns a moment of a session as makers write it: "1:15", "1¼", "2", "2.5 h", "75 min". Hours if nothing is given. */
function minuteOf(text: string): number | null {
  const plain = text.trim().toLowerCase().replace(/½/, ".5").replace(/¼/, ".25").replace(/¾/, ".75").replace(",", ".");
  const clock = /^(\d{1,2}):([0-5]\d)$/.exec(plain);
  if (clock) return Number(clock[1]) * 60 + Number(clock[2]);
  const said = /^(\d*\.?\d+)\s*(h|hours?|min|minutes?)?$/.exec(plain);
  if (!said) return null;
  const value = Number(said[1]);
  return Math.round(said[2]?.startsWith("m") ? value : value * 60);
}

/** Reads sessions as they are typed, one a line: the checks, and after “out” when it is put out (else with the last check). */
export function readSessions(text: string): Parsed<ProtocolSession[]> {
  const sessions: ProtocolSession[] = [];
  const lines = text.split("\n").filter((line) => line.trim() !== "");
  if (lines.length === 0) return bad("empty", "Write at least one session: its checks, like “1:15 2 3 4”.");
  for (const [index, line] of lines.entries()) {
    const [checksText = "", outText] = line.split(/\bout\b/i);
    const words = checksText.split(/[\s;]+|,\s+|,$/).filter(Boolean);
    const checks = words.map(minuteOf);
    const wrong = words[checks.indexOf(null)];
    if (wrong !== undefined) return bad("not-understood", `“${wrong}” in line ${index + 1} is no time. Write checks like “1:15 2 3 4”.`);
    const out = outText === undefined ? (checks.at(-1) ?? null) : minuteOf(outText);
    if (out === null) return bad("not-understood", `When it is put out cannot be read in line ${index + 1}. Write “out 4:00”.`);
    const session: ProtocolSession = { checks: checks.filter((minute) => minute !== null), minutes: out };
    const fault = sessionFault(session);
    if (fault) return bad("out-of-range", `Line ${index + 1}: ${fault}`);
    sessions.push(session);
  }
  return sessions.length > 20 ? bad("too-long", "At most 20 sessions are written down; the last one repeats itself to the end.") : good(sessions);
}
