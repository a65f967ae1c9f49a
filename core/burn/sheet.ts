import { metricColumn } from "../units/measured-columns";
import { bad, good, type Parsed } from "../units/parsed";
import { dueChecks, minutesFrom } from "./checks";
import { FLAMES } from "./judge";
import { type TrialPlan, variantWords } from "./plan";
import { sessionOf } from "./protocol";
import { AIR, type CheckSeen, LEFT_ON_WALL, MUSHROOMS, OUT_WHY, SOOT, SOOT_AT, type TrialState } from "./state";
import type { TrialBody } from "./trial";

/** The columns of a burn record as CSV, by their metric names: one row for each check, made or missed, and one for a session of which none was asked. */
export const BURN_COLUMNS = [
  "test_candle",
  "variant",
  "session",
  "lit_at",
  "trim_mm",
  "air",
  "early",
  "grams_before",
  "grams_after",
  "out_at",
  "out_why",
  "out_sign",
  "checked_at",
  "minute",
  "missed",
  "pool_mm",
  "reached_percent",
  "depth_mm",
  "flame",
  "flame_mm",
  "mushroom",
  "soot",
  "soot_at",
  "wall_c",
  "on_wall",
  "bottom_seen",
  "flames_joined",
  "burns_elsewhere",
  "hard_edge",
  "note",
  "flames",
  "own_marks",
] as const;
type Column = (typeof BURN_COLUMNS)[number];
/** What columns were called in files of earlier versions, which are still read. */
const FORMER_COLUMNS: Record<string, Column> = { tester: "test_candle", option: "variant", looked_at: "checked_at" };
/** Returns the name of a column as it is now: `Lit at` is `lit_at`. */
const columnName = (head: string): string => {
  const name = head.trim().toLowerCase().replaceAll(" ", "_");
  return FORMER_COLUMNS[name] ?? name;
};
export type BurnRow = Record<Column, string | number>;

const yes = (value: boolean | undefined) => (value === undefined ? "" : value ? "yes" : "no");
const per = (value: number | undefined | null, by: number) => (value === undefined || value === null ? "" : value / by);

/** Returns a trial's sessions and checks as rows. */
export function burnRows(plan: TrialPlan, state: TrialState): BurnRow[] {
  return plan.testCandles.flatMap(({ key, variant }) =>
    (state.testCandles[key]?.sessions ?? []).flatMap((session, index) => {
      const rowOf = (check: CheckSeen | null, missed?: number): BurnRow => ({
        test_candle: key,
        variant: variantWords(plan, variant),
        session: index + 1,
        lit_at: session.litAt,
        trim_mm: per(session.trimUm, 1_000),
        air: session.air.join("; "),
        early: session.early,
        grams_before: per(session.beforeMg, 1_000),
        grams_after: per(session.afterMg, 1_000),
        out_at: session.out?.at ?? "",
        out_why: session.out?.why ?? "",
        out_sign: session.out?.sign ?? "",
        checked_at: check?.at ?? "",
        minute: check ? Math.round(minutesFrom(session.litAt, check.at) * 10) / 10 : (missed ?? ""),
        missed: missed === undefined ? "" : "yes",
        pool_mm: per(check?.poolUm, 1_000),
        reached_percent: check?.reached ?? "",
        depth_mm: per(check?.depthUm, 1_000),
        flame: check?.flame ?? "",
        flame_mm: per(check?.flameUm, 1_000),
        mushroom: check?.mushroom ?? "",
        soot: check?.soot ?? "",
        soot_at: check?.sootAt ?? "",
        wall_c: per(check?.wall, 100),
        on_wall: check?.onWall ?? "",
        bottom_seen: yes(check?.bottom),
        flames_joined: yes(check?.joined),
        burns_elsewhere: yes(check?.elsewhere),
        hard_edge: yes(check?.edge),
        flames: (check?.flames ?? []).join("; "),
        own_marks: Object.entries(check?.marks ?? {})
          .map(([name, mark]) => `${name} ${mark}`)
          .join("; "),
        note: check?.note ?? "",
      });
      // A check that nobody made is recorded as missed, at the minute at which it was due.
      const ended = session.out?.at ?? state.lastAt;
      const missed = dueChecks(sessionOf(plan.protocol, index)?.checks ?? [], session, ended).filter((check) => check.state === "missed");
      const rows = [...session.checks.map((check) => rowOf(check)), ...missed.map((check) => rowOf(null, check.due))];
      return rows.length === 0 ? [rowOf(null)] : rows;
    }),
  );
}

export type Timed = TrialBody & { happenedAt: string };

/** What a cell says, where it says something. @throws Fault with its row and column */
class Fault extends Error {}

/**
 * Reads such rows back as entries: sessions that were burned without this program, written down on paper or elsewhere. Rows that are
 * already here, by test candle and time of lighting, are left out. Times are ISO; `variant` and `minute` are not needed where
 * `checked_at` is given.
 */
export function readBurnRows(heads: readonly string[], rows: readonly (readonly string[])[], plan: TrialPlan, state: TrialState): Parsed<Timed[]> {
  const columns = heads.map((head) => metricColumn(columnName(head)));
  const place = new Map(columns.map(({ column }, index) => [column, index]));
  const missing = (["test_candle", "lit_at"] as const).find((item) => !place.has(item));
  if (missing) return bad("unknown", `The column “${missing}” is missing. Export a trial as CSV to see the columns.`);
  const out: Timed[] = [];
  const sessions = new Map<string, { testCandle: string; number: number }>();
  const counts = new Map(plan.testCandles.map(({ key }) => [key, state.testCandles[key]?.sessions.length ?? 0]));
  const here = new Set(plan.testCandles.flatMap(({ key }) => (state.testCandles[key]?.sessions ?? []).map((session) => `${key} ${Date.parse(session.litAt)}`)));
  try {
    for (const [at, row] of rows.entries()) {
      if (row.every((cell) => cell.trim() === "")) continue;
      const text = (name: Column) => {
        const index = place.get(name);
        return index === undefined ? "" : (row[index] ?? "").trim();
      };
      const wrong = (name: Column, why: string) => new Fault(`Row ${at + 2}, ${name}: ${why}`);
      const number = (name: Column, by: number): number | undefined => {
        const written = text(name).replace(",", ".");
        if (written === "") return undefined;
        const value = Number(written);
        if (!Number.isFinite(value) || value < 0) throw wrong(name, `“${text(name)}” is no number.`);
        return Math.round((columns[place.get(name) ?? -1]?.toMetric(value) ?? value) * by);
      };
      const time = (name: Column): string | null => {
        const written = text(name);
        if (written === "") return null;
        const ms = Date.parse(written);
        if (Number.isNaN(ms)) throw wrong(name, `“${written}” is no time. Write it like 2026-03-14T09:30:00Z.`);
        return new Date(ms).toISOString();
      };
      const item = <T extends string>(name: Column, of: readonly T[]): T | undefined => {
        const written = text(name).toLowerCase().replace("grey", "gray");
        if (written === "") return undefined;
        const found = of.find((each) => each === written);
        if (!found) throw wrong(name, `“${text(name)}” is none of: ${of.join(", ")}.`);
        return found;
      };
      const flag = (name: Column) => {
        const said = item(name, ["yes", "no"] as const);
        return said === undefined ? undefined : said === "yes";
      };
      const parts = (name: Column) =>
        text(name)
          .split(";")
          .map((part) => part.trim())
          .filter(Boolean);
      const flames = () => {
        const found = parts("flames").map((part) => FLAMES.find((each) => each === part.toLowerCase()));
        if (found.length === 1 || found.includes(undefined)) throw wrong("flames", `say each flame, like “steady; small”: ${FLAMES.join(", ")}.`);
        return found.length > 1 ? found : undefined;
      };
      const marks = () => {
        const found = parts("own_marks").map((part) => /^(.+?) ([\d.]+)$/.exec(part));
        if (found.some((match) => !match || Number(match[2]) > 10)) throw wrong("own_marks", "write each mark with its score, like “crackle 7; drips 2”.");
        return found.length > 0 ? Object.fromEntries(found.map((match) => [match?.[1] ?? "", Number(match?.[2])])) : undefined;
      };
      const testCandle = text("test_candle").toUpperCase();
      if (!counts.has(testCandle)) throw wrong("test_candle", `“${text("test_candle")}” is no test candle of this trial: ${[...counts.keys()].join(", ")}.`);
      const litAt = time("lit_at");
      if (!litAt) throw wrong("lit_at", "when it was lit is missing.");
      const key = `${testCandle} ${Date.parse(litAt)}`;
      if (here.has(key)) continue;
      const outAt = time("out_at");
      if (!sessions.has(key)) {
        const session = (counts.get(testCandle) ?? 0) + 1;
        counts.set(testCandle, session);
        sessions.set(key, { testCandle, number: session });
        const air = text("air")
          .split(";")
          .flatMap((part) => AIR.find((each) => each === part.trim()) ?? []);
        out.push({
          kind: "lit",
          payload: { testCandle, trimUm: number("trim_mm", 1_000) ?? null, air, early: text("early").slice(0, 300) },
          happenedAt: litAt,
        });
        const before = number("grams_before", 1_000);
        if (before) out.push({ kind: "weighed", payload: { testCandle, session, when: "before", mg: before }, happenedAt: litAt });
        if (!outAt) throw wrong("out_at", "when it was put out is missing.");
        if (Date.parse(outAt) < Date.parse(litAt)) throw wrong("out_at", "it was put out before it was lit.");
        out.push({
          kind: "extinguished",
          payload: { testCandle, why: item("out_why", OUT_WHY) ?? "protocol", sign: text("out_sign").slice(0, 300) },
          happenedAt: outAt,
        });
        const after = number("grams_after", 1_000);
        if (after) out.push({ kind: "weighed", payload: { testCandle, session, when: "after", mg: after }, happenedAt: outAt });
      }
      if (flag("missed")) continue;
      const minute = number("minute", 60_000);
      const seenAt = time("checked_at") ?? (minute === undefined ? null : new Date(Date.parse(litAt) + minute).toISOString());
      const seen = Object.fromEntries(
        Object.entries({
          poolUm: number("pool_mm", 1_000),
          reached: number("reached_percent", 1),
          depthUm: number("depth_mm", 1_000),
          flame: item("flame", FLAMES),
          flameUm: number("flame_mm", 1_000),
          mushroom: item("mushroom", MUSHROOMS),
          soot: item("soot", SOOT),
          sootAt: item("soot_at", SOOT_AT),
          wall: number("wall_c", 100),
          onWall: item("on_wall", LEFT_ON_WALL),
          bottom: flag("bottom_seen"),
          joined: flag("flames_joined"),
          elsewhere: flag("burns_elsewhere"),
          edge: flag("hard_edge"),
          flames: flames(),
          marks: marks(),
          note: text("note").slice(0, 500) || undefined,
        }).filter(([, value]) => value !== undefined),
      );
      if (Object.keys(seen).length === 0) continue;
      if (!seenAt) throw wrong("minute", "say at which minute it was looked at.");
      out.push({ kind: "checked", payload: { testCandle, ...seen }, happenedAt: seenAt } as Timed);
    }
  } catch (error) {
    if (error instanceof Fault) return bad("not-understood", error.message);
    throw error;
  }
  // In the order in which it happened, so that each is taken: lit, looked at, out, weighed.
  const rank = { lit: 0, checked: 1, extinguished: 2, weighed: 3 } as Record<string, number>;
  return good(out.sort((a, b) => Date.parse(a.happenedAt) - Date.parse(b.happenedAt) || (rank[a.kind] ?? 9) - (rank[b.kind] ?? 9)));
}
