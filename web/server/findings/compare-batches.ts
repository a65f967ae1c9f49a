import {
  type BatchPlan,
  type Comparable,
  comparable,
  type Difference,
  defectOf,
  diagnosisOf,
  difference,
  type FormulaSpec,
  type RecordKeyName,
  recordDifferences,
  shareDifference,
  throwLevels,
  titleOf,
  type UnitChoice,
  wilson,
} from "@hearth/core";
import { and, eq } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { throwScores } from "@/server/burn/throw-scores";
import { readBatchState } from "@/server/events/read-events";
import { flawsOf, toolKinds } from "./diagnosis";

interface Side {
  id: string;
  number: number;
  title: string;
  rehearsal: boolean;
  pouredAt: string | null;
  lookedAt: string | null;
  jars: number;
  plan: BatchPlan;
  record: ReturnType<typeof diagnosisOf>["record"];
  flaws: ReturnType<typeof flawsOf>;
  /** How strong it smelled: mean scores by age, cold and hot. */
  scores: { of: "cold" | "hot"; level: string; mean: number; n: number }[];
}

async function sideOf(db: Database, workshopId: string, number: number, tools: ReadonlyMap<string, string>): Promise<Side | null> {
  const [row] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.number, number)));
  if (!row) return null;
  const { plan, state } = await readBatchState(db, row);
  const flaws = flawsOf(plan, state);
  const all = await throwScores(db, workshopId, { batchId: row.id });
  const scores = (["cold", "hot"] as const).flatMap((of) =>
    throwLevels(
      all.filter((throwScore) => throwScore.throw === of),
      "age",
    ).map(({ level, mean, n }) => ({ of, level, mean, n })),
  );
  return {
    scores,
    id: row.id,
    number,
    title: titleOf(plan),
    rehearsal: plan.rehearsal === true,
    pouredAt: row.pouredAt && new Date(row.pouredAt).toISOString(),
    lookedAt: state.lookedAt,
    jars: flaws[0]?.of ?? plan.products.reduce((sum, item) => sum + item.count, 0),
    plan,
    record: diagnosisOf(plan, state, state.lookedAt ?? state.lastAt, tools).record,
    flaws,
  };
}

/** What of a formula's difference is the same as a key of the record: asked otherwise and done otherwise is one change. */
const KEY_OF_WORDS: [RegExp, RecordKeyName][] = [
  [/^pour range$/, "pour_c"],
  [/^add range$/, "add_c"],
  [/^heat range$/, "heat_c"],
  [/^stir for$/, "stir_minutes"],
  [/^load$/, "load_percent_of_wax"],
  [/^dye$/, "dye_drops_per_lb"],
  [/^additives$/, "additive_percent_of_wax"],
];
/** Words of a maker, and names, change nothing of a candle. */
const WORDS_ONLY = /^(notes|reason|process)$/;

export interface Compared {
  a: Omit<Side, "plan" | "record" | "flaws">;
  b: Omit<Side, "plan" | "record" | "flaws">;
  /** What was asked otherwise, in words. */
  asked: { what: string; from: string; to: string }[];
  done: Difference[];
  unknown: Difference[];
  /** How many things changed, asked or done. */
  changed: number;
  says: Comparable;
  flaws: { defect: string; name: string; a: { k: number; n: number }; b: { k: number; n: number }; shares: ReturnType<typeof shareDifference> }[];
}

const specOf = (plan: BatchPlan): FormulaSpec => ({ ...(plan.pots[0]?.recipe as FormulaSpec), process: plan.process });

/** Returns two batches side by side: what was asked and done otherwise, and what came out; null if one is not there. */
export async function compareBatches(db: Database, workshopId: string, numbers: readonly [number, number], units: UnitChoice): Promise<Compared | null> {
  const tools = await toolKinds(db, workshopId);
  const [a, b] = await Promise.all(numbers.map((number) => sideOf(db, workshopId, number, tools)));
  if (!a || !b) return null;
  const names = new Map([a, b].flatMap((side) => side.plan.pots.flatMap((pot) => pot.components.map((part) => [part.id, part.name] as const))));
  const containers = (side: Side) =>
    [...new Set(side.plan.products.map((product) => `${product.name}${product.wicks ? `, ${product.wicks.count} × ${product.wicks.name}` : ""}`))]
      .sort()
      .join("; ");
  const asked = [
    ...difference(specOf(a.plan), specOf(b.plan), (id) => names.get(id) ?? "another", units),
    ...(containers(a) === containers(b) ? [] : [{ what: "vessels and wicks", from: containers(a), to: containers(b) }]),
  ].filter((change) => !WORDS_ONLY.test(change.what));
  const { differ, unknown } = recordDifferences(a.record, b.record);
  // What belongs to the vessel stands with the vessel.
  const ofVessel: RecordKeyName[] = ["vessel_diameter_mm", "wicks"];
  const done = differ.filter((difference) => !ofVessel.includes(difference.key));
  const things = new Set<string>([
    ...asked.map((change) => KEY_OF_WORDS.find(([words]) => words.test(change.what))?.[1] ?? change.what),
    ...done.map((difference) => difference.key),
  ]);
  const defects = [...new Set([...a.flaws, ...b.flaws].map((item) => item.defect))];
  const outside = ({ plan: _p, record: _r, flaws: _f, ...rest }: Side) => rest;
  return {
    a: outside(a),
    b: outside(b),
    asked,
    done,
    unknown,
    changed: things.size,
    says: comparable(things.size),
    flaws:
      a.lookedAt && b.lookedAt && a.jars > 0 && b.jars > 0
        ? defects.map((defect) => {
            const of = (side: Side) => ({ k: Math.min(side.jars, side.flaws.find((flaw) => flaw.defect === defect)?.jars ?? 0), n: side.jars });
            return {
              defect,
              name: defectOf(defect)?.name ?? defect,
              a: of(a),
              b: of(b),
              shares: shareDifference(wilson(of(a).k, of(a).n), wilson(of(b).k, of(b).n)),
            };
          })
        : [],
  };
}
