import { bad, good, type Parsed } from "../units/parsed";
import { dueChecks, minutesFrom } from "./checks";
import { FLAMES } from "./judge";
import { type TrialPlan, variantWords } from "./plan";
import { sessionOf } from "./protocol";
import { AIR, type CheckSeen, LEFT_ON_WALL, MUSHROOMS, OUT_WHY, SOOT, SOOT_AT, type TrialState } from "./state";
import type { TrialBody } from "./trial";

/** The columns of a burn record as CSV, in SI units: one row a look, made or missed, and one for a session of which none was asked. */
export const BURN_COLUMNS = [
  "tester",
  "option",
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
  "looked_at",
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
] as const;
type Column = (typeof BURN_COLUMNS)[number];
export type BurnRow = Record<Column, string | number>;

const yes = (value: boolean | undefined) => (value === undefined ? "" : value ? "yes" : "no");
const per = (value: number | undefined | null, by: number) => (value === undefined || value === null ? "" : value / by);

/** A trial's sessions and looks as rows. */
export function burnRows(plan: TrialPlan, state: TrialState): BurnRow[] {
  return plan.testers.flatMap(({ key, option }) =>
    (state.testers[key]?.sessions ?? []).flatMap((session, at) => {
      const rowOf = (look: CheckSeen | null, missed?: number): BurnRow => ({
        tester: key,
        option: variantWords(plan, option),
        session: at + 1,
        lit_at: session.litAt,
        trim_mm: per(session.trimUm, 1_000),
        air: session.air.join("; "),
        early: session.early,
        grams_before: per(session.beforeMg, 1_000),
        grams_after: per(session.afterMg, 1_000),
        out_at: session.out?.at ?? "",
        out_why: session.out?.why ?? "",
        out_sign: session.out?.sign ?? "",
        looked_at: look?.at ?? "",
        minute: look ? Math.round(minutesFrom(session.litAt, look.at) * 10) / 10 : (missed ?? ""),
        missed: missed === undefined ? "" : "yes",
        pool_mm: per(look?.poolUm, 1_000),
        reached_percent: look?.reached ?? "",
        depth_mm: per(look?.depthUm, 1_000),
        flame: look?.flame ?? "",
        flame_mm: per(look?.flameUm, 1_000),
        mushroom: look?.mushroom ?? "",
        soot: look?.soot ?? "",
        soot_at: look?.sootAt ?? "",
        wall_c: per(look?.wall, 100),
        on_wall: look?.onWall ?? "",
        bottom_seen: yes(look?.bottom),
        flames_joined: yes(look?.joined),
        burns_elsewhere: yes(look?.elsewhere),
        hard_edge: yes(look?.edge),
        note: look?.note ?? "",
      });
      // A look that nobody made is recorded as missed, at the minute at which it was due.
      const ended = session.out?.at ?? state.lastAt;
      const missed = dueChecks(sessionOf(plan.protocol, at)?.looks ?? [], session, ended).filter((one) => one.state === "missed");
      const rows = [...session.looks.map((look) => rowOf(look)), ...missed.map((one) => rowOf(null, one.due))];
      return rows.length === 0 ? [rowOf(null)] : rows;
    }),
  );
}

export type Timed = TrialBody & { happenedAt: string };

/** What a cell says, where it says something. @throws Fault with its row and column */
class Fault extends Error {}

/**
 * Reads such rows back as entries: sessions that were burned without this program, put down on paper or elsewhere. Rows that are
 * already here, by tester and time of lighting, are left out. Times are ISO; `option` and `minute` are not needed where
 * `looked_at` is given.
 */
export function readBurnRows(heads: readonly string[], rows: readonly (readonly string[])[], plan: TrialPlan, state: TrialState): Parsed<Timed[]> {
  const place = new Map(heads.map((head, at) => [head.trim().toLowerCase().replaceAll(" ", "_"), at]));
  const missing = (["tester", "lit_at"] as const).find((one) => !place.has(one));
  if (missing) return bad("unknown", `The column “${missing}” is missing. Export a trial as CSV to see the columns.`);
  const out: Timed[] = [];
  const sessions = new Map<string, { tester: string; number: number }>();
  const counts = new Map(plan.testers.map(({ key }) => [key, state.testers[key]?.sessions.length ?? 0]));
  const here = new Set(plan.testers.flatMap(({ key }) => (state.testers[key]?.sessions ?? []).map((one) => `${key} ${Date.parse(one.litAt)}`)));
  try {
    for (const [at, row] of rows.entries()) {
      if (row.every((cell) => cell.trim() === "")) continue;
      const text = (name: Column) => {
        const index = place.get(name);
        return index === undefined ? "" : (row[index] ?? "").trim();
      };
      const wrong = (name: Column, why: string) => new Fault(`Row ${at + 2}, ${name}: ${why}`);
      const number = (name: Column, by: number): number | undefined => {
        const said = text(name).replace(",", ".");
        if (said === "") return undefined;
        const value = Number(said);
        if (!Number.isFinite(value) || value < 0) throw wrong(name, `“${text(name)}” is no number.`);
        return Math.round(value * by);
      };
      const time = (name: Column): string | null => {
        const said = text(name);
        if (said === "") return null;
        const ms = Date.parse(said);
        if (Number.isNaN(ms)) throw wrong(name, `“${said}” is no time. Write it like 2026-03-14T09:30:00Z.`);
        return new Date(ms).toISOString();
      };
      const one = <T extends string>(name: Column, of: readonly T[]): T | undefined => {
        const said = text(name).toLowerCase();
        if (said === "") return undefined;
        const found = of.find((each) => each === said);
        if (!found) throw wrong(name, `“${text(name)}” is none of: ${of.join(", ")}.`);
        return found;
      };
      const flag = (name: Column) => {
        const said = one(name, ["yes", "no"] as const);
        return said === undefined ? undefined : said === "yes";
      };
      const tester = text("tester").toUpperCase();
      if (!counts.has(tester)) throw wrong("tester", `“${text("tester")}” is no tester of this trial: ${[...counts.keys()].join(", ")}.`);
      const litAt = time("lit_at");
      if (!litAt) throw wrong("lit_at", "when it was lit is missing.");
      const key = `${tester} ${Date.parse(litAt)}`;
      if (here.has(key)) continue;
      const outAt = time("out_at");
      if (!sessions.has(key)) {
        const session = (counts.get(tester) ?? 0) + 1;
        counts.set(tester, session);
        sessions.set(key, { tester, number: session });
        const air = text("air")
          .split(";")
          .flatMap((part) => AIR.find((each) => each === part.trim()) ?? []);
        out.push({ kind: "lit", payload: { tester, trimUm: number("trim_mm", 1_000) ?? null, air, early: text("early").slice(0, 300) }, happenedAt: litAt });
        const before = number("grams_before", 1_000);
        if (before) out.push({ kind: "weighed", payload: { tester, session, when: "before", mg: before }, happenedAt: litAt });
        if (!outAt) throw wrong("out_at", "when it was put out is missing.");
        if (Date.parse(outAt) < Date.parse(litAt)) throw wrong("out_at", "it was put out before it was lit.");
        out.push({
          kind: "extinguished",
          payload: { tester, why: one("out_why", OUT_WHY) ?? "protocol", sign: text("out_sign").slice(0, 300) },
          happenedAt: outAt,
        });
        const after = number("grams_after", 1_000);
        if (after) out.push({ kind: "weighed", payload: { tester, session, when: "after", mg: after }, happenedAt: outAt });
      }
      if (flag("missed")) continue;
      const minute = number("minute", 60_000);
      const seenAt = time("looked_at") ?? (minute === undefined ? null : new Date(Date.parse(litAt) + minute).toISOString());
      const seen = Object.fromEntries(
        Object.entries({
          poolUm: number("pool_mm", 1_000),
          reached: number("reached_percent", 1),
          depthUm: number("depth_mm", 1_000),
          flame: one("flame", FLAMES),
          flameUm: number("flame_mm", 1_000),
          mushroom: one("mushroom", MUSHROOMS),
          soot: one("soot", SOOT),
          sootAt: one("soot_at", SOOT_AT),
          wall: number("wall_c", 100),
          onWall: one("on_wall", LEFT_ON_WALL),
          bottom: flag("bottom_seen"),
          joined: flag("flames_joined"),
          elsewhere: flag("burns_elsewhere"),
          edge: flag("hard_edge"),
          note: text("note").slice(0, 500) || undefined,
        }).filter(([, value]) => value !== undefined),
      );
      if (Object.keys(seen).length === 0) continue;
      if (!seenAt) throw wrong("minute", "say at which minute it was looked at.");
      out.push({ kind: "checked", payload: { tester, ...seen }, happenedAt: seenAt } as Timed);
    }
  } catch (error) {
    if (error instanceof Fault) return bad("not-understood", error.message);
    throw error;
  }
  // In the order in which it happened, so that each is taken: lit, looked at, out, weighed.
  const rank = { lit: 0, checked: 1, extinguished: 2, weighed: 3 } as Record<string, number>;
  return good(out.sort((a, b) => Date.parse(a.happenedAt) - Date.parse(b.happenedAt) || (rank[a.kind] ?? 9) - (rank[b.kind] ?? 9)));
}
