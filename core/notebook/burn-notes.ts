import type { FlameSeen } from "../burn/judge";
import type { TrialEvent } from "../burn/trial";
import type { SentEntry } from "../log/log";
import { SECONDS, secondsLater } from "../units/duration";
import { type CandleNote, candleNote } from "./batch-notes";
import type { NotesReading } from "./columns";
import { type NameChoices, nameKey } from "./names";
import { type NoteFault, type NoteRow, noteCell } from "./rows";

/** One look at a burning candle as a notebook has it. */
export interface CheckNote {
  line: number;
  day: string;
  session: number | null;
  /** Seconds after it was lit. */
  after: number;
  values: NoteRow["values"];
  remark: string;
}

/** A candle of a burn notebook with everything that was noted of it. */
export interface BurnNote extends CandleNote {
  name: string;
  checks: CheckNote[];
  decided: "passed" | "failed" | null;
}

const FLAMES: readonly (readonly [FlameSeen, RegExp])[] = [
  ["out", /\bout\b|drown/],
  ["dying", /dying|flicker.*low|struggl/],
  ["jumping", /jump|danc|flicker/],
  ["large", /large|big|high|tall|too hot/],
  ["small", /small|low|weak|tiny|short/],
  ["steady", /steady|good|ok|fine|normal|medium|calm|nice|perfect/],
];
/** Returns the flame that a few words mean; undefined where they mean none. */
export const flameNamed = (text: string): FlameSeen | undefined => FLAMES.find(([, words]) => words.test(text.toLowerCase()))?.[0];

/** Returns the candles of a burn notebook, each with its checks in the order of their rows, and what is wrong with each row. */
export function burnNotes(
  rows: readonly NoteRow[],
  reading: NotesReading,
  choices: NameChoices,
): { notes: BurnNote[]; faults: ReadonlyMap<number, NoteFault[]> } {
  const faults = new Map<number, NoteFault[]>();
  const notes = new Map<string, BurnNote>();
  for (const row of rows) {
    const { values, line } = row;
    const { candle, faults: ofCandle } = candleNote(row, reading, choices);
    const wrong = [...row.faults, ...ofCandle];
    const after = values.after ?? 0;
    if (after > SECONDS.d)
      wrong.push({
        cell: noteCell(reading, "after", line),
        message: `${Math.round(after / SECONDS.min)} minutes after lighting is longer than a candle burns in one session. Look at the unit of this column.`,
      });
    faults.set(line, wrong);
    if (wrong.length > 0) continue;
    const name = values.candle ?? [values.vessel, values.wick].filter(Boolean).join(", ");
    const key = JSON.stringify([nameKey("vessel", values.candle ?? ""), candle]);
    const note = notes.get(key) ?? { ...candle, name, checks: [], decided: null };
    const result = values.result?.toLowerCase() ?? "";
    notes.set(key, {
      ...note,
      checks: [
        ...note.checks,
        {
          line,
          day: values.day ?? "",
          session: values.session ?? null,
          after,
          values,
          remark: [values.remarks ?? "", ...row.comments].filter(Boolean).join("; ").slice(0, 500),
        },
      ],
      decided: /pass|good|ok|winner|yes/.test(result) ? "passed" : /fail|bad|no\b/.test(result) ? "failed" : note.decided,
    });
  }
  return { notes: [...notes.values()], faults };
}

/** The hour of the day at which a session without a time is taken to have begun, and how far apart two of one day are. */
const BEGAN_AT_HOUR = 9;
const APART = 6 * SECONDS.h;

/** Returns the sessions of a candle: checks of one day and number, each later than the one before. */
function sessionsOf(note: BurnNote): CheckNote[][] {
  const sessions: CheckNote[][] = [];
  for (const check of note.checks) {
    const open = sessions.at(-1);
    const last = open?.at(-1);
    const isSame = last && last.day === check.day && last.session === check.session && check.after > last.after;
    if (isSame) open?.push(check);
    else sessions.push([check]);
  }
  return sessions;
}

const lookOf = ({ values, remark }: CheckNote) => {
  const flame = values.flame === undefined ? undefined : flameNamed(values.flame);
  const note = [values.flame !== undefined && flame === undefined ? `Flame: ${values.flame}` : "", remark].filter(Boolean).join("; ").slice(0, 500);
  return {
    ...(values.pool === undefined ? {} : { poolUm: values.pool }),
    ...(values.depth === undefined ? {} : { depthUm: values.depth }),
    ...(flame === undefined ? {} : { flame }),
    ...(values.mushroom === undefined ? {} : { mushroom: values.mushroom === 0 ? ("none" as const) : ("small" as const) }),
    ...(values.soot === undefined ? {} : { soot: values.soot === 0 ? ("none" as const) : ("black" as const) }),
    ...(values.wall === undefined ? {} : { wall: values.wall }),
    ...(note ? { note } : {}),
  };
};

type NotedBurnEntry = Pick<SentEntry, "happenedAt" | "kind" | "payload">;

/** Returns the entries of one candle of a burn trial, in order of time. @param hourOf gives the moment of an hour of a day in the workshop's zone */
export function burnEntries(note: BurnNote, testCandle: string, variant: string, hourOf: (day: string, hour: number) => string): NotedBurnEntry[] {
  const entries: NotedBurnEntry[] = [];
  const put = (happenedAt: string, kind: TrialEvent["kind"], payload: object) => entries.push({ happenedAt, kind, payload });
  let free = "";
  for (const session of sessionsOf(note)) {
    const [first] = session;
    const last = session.at(-1);
    if (!first || !last) continue;
    const morning = hourOf(first.day, BEGAN_AT_HOUR);
    const litAt = free > morning ? free : morning;
    const trim = session.find((check) => check.values.trim !== undefined)?.values.trim ?? null;
    put(litAt, "lit", { testCandle, trimUm: trim, air: [], early: "" });
    for (const check of session) {
      const look = lookOf(check);
      const at = secondsLater(litAt, check.after);
      if (Object.keys(look).length > 0) put(at, "checked", { testCandle, ...look });
      if (check.values.hot !== undefined)
        put(at, "throwScored", { testCandle, throw: "hot", room: check.values.hotRoom ?? "not noted", score: check.values.hot });
    }
    put(secondsLater(litAt, last.after), "extinguished", { testCandle, why: "protocol", sign: "" });
    free = secondsLater(litAt, last.after + APART);
  }
  const end = entries.at(-1)?.happenedAt;
  if (end && note.decided) put(end, "decided", { variant, verdict: note.decided, why: "as noted" });
  return entries;
}
