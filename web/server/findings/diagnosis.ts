import {
  type BatchPlan,
  type BatchState,
  burnedFlaws,
  burnedOfBatch,
  burningFlaws,
  type ChangeNext,
  type DiagnosisRecord,
  defectOf,
  diagnose,
  diagnosisOf,
  type FormulaSpec,
  type FoundFactor,
  flawSeenAt,
  type Judged,
  nextForThrow,
  outcomesOf,
  type RecordKeyName,
  readFormula,
  recordOfBurn,
  shareUm,
  sizeSteps,
  type TrialPlan,
  type TrialState,
  titleOf,
  type Unlike,
  unlikeFine,
} from "@hearth/core";
import { and, desc, eq, gt, inArray, ne, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { outcomes } from "@/data/tables/finding";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { fragrances, instruments, wicks } from "@/data/tables/shelf";
import { trials } from "@/data/tables/trial";
import { readBatchState } from "@/server/events/read-events";
import { historyOf } from "./findings";
import { readCustomCauses } from "./rules";

/** Which factor of the findings a key of the record is counted by. */
const FACTOR_OF: Partial<Record<RecordKeyName, string>> = {
  pour_c: "pour",
  add_c: "add",
  load_percent_of_wax: "load",
  room_c: "room",
  vessel_warmed: "warmed",
  halves: "halves",
  stir_minutes: "stir",
  cure_days: "cure",
};

export interface BatchDiagnosis {
  batch: { id: string; number: number; title: string; pouredAt: string | null; rehearsal: boolean };
  flaws: { defect: string; name: string; jars: number; of: number }[];
  defect: string | null;
  /** Each cause with what this batch's record says, and the workshop's own history of it. */
  causes: (Judged & { history: FoundFactor | null })[];
  change: ChangeNext | null;
  /** What to try next of a weak hot throw where no cause asks for a change: one step of the trade's ladder, in words. */
  next: string | null;
  class: "cosmetic" | "performance" | "safety" | null;
  /** What of the record no batch without the flaw has. */
  unlike: Unlike[];
  fine: number;
  formula: { id: string; name: string; version: number; spec: FormulaSpec } | null;
  /** Batches of the same formula that came after it. */
  after: { id: string; number: number }[];
}

const MAX_FINE = 200;

/** Records of looked-over batches of the same wax family that do not show a flaw, newest first. */
async function fineRecords(db: Database, workshopId: string, batchId: string, family: string, defect: string): Promise<DiagnosisRecord[]> {
  const rows = await db
    .select({ record: outcomes.record })
    .from(outcomes)
    .where(
      and(
        eq(outcomes.workshopId, workshopId),
        eq(outcomes.looked, true),
        eq(outcomes.family, family),
        ne(outcomes.batchId, batchId),
        sql`not exists (select 1 from outcome_flaw f where f.workshop_id = ${outcomes.workshopId} and f.batch_id = ${outcomes.batchId} and f.defect = ${defect})`,
      ),
    )
    .orderBy(desc(outcomes.pouredAt))
    .limit(MAX_FINE);
  return rows.map((row) => row.record);
}

async function formulaOf(db: Database, workshopId: string, versionId: string): Promise<BatchDiagnosis["formula"]> {
  const [row] = await db
    .select({ id: formulas.id, name: formulas.name, version: formulas.version })
    .from(formulaVersions)
    .innerJoin(formulas, and(eq(formulas.workshopId, formulaVersions.workshopId), eq(formulas.id, formulaVersions.formulaId)))
    .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.id, versionId)));
  if (!row) return null;
  const [newest] = await db
    .select({ spec: formulaVersions.spec })
    .from(formulaVersions)
    .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.formulaId, row.id)))
    .orderBy(desc(formulaVersions.number))
    .limit(1);
  return newest ? { ...row, spec: readFormula(newest.spec) } : null;
}

async function followers(db: Database, workshopId: string, formulaId: string, number: number): Promise<BatchDiagnosis["after"]> {
  const rows = await db
    .select({ id: batches.id, number: batches.number })
    .from(batches)
    .innerJoin(formulaVersions, and(eq(formulaVersions.workshopId, batches.workshopId), eq(formulaVersions.id, batches.formulaVersionId)))
    .where(
      and(
        eq(batches.workshopId, workshopId),
        eq(formulaVersions.formulaId, formulaId),
        // By number: a rehearsal has a time of its own.
        gt(batches.number, number),
        inArray(batches.stage, ["pot", "rack", "closed", "rehearsal", "rehearsed"]),
      ),
    )
    .orderBy(batches.number)
    .limit(5);
  return rows;
}

/** Kinds of thermometer by their id. */
export async function toolKinds(db: Database, workshopId: string): Promise<Map<string, string>> {
  const rows = await db.select({ id: instruments.id, kind: instruments.kind }).from(instruments).where(eq(instruments.workshopId, workshopId));
  return new Map(rows.map((row) => [row.id, row.kind]));
}

export const flawsOf = (plan: BatchPlan, state: BatchState): BatchDiagnosis["flaws"] => {
  const counts = new Map<string, number>();
  const rows = outcomesOf(plan, state);
  for (const row of rows) for (const [defect, jars] of Object.entries(row.flawed)) counts.set(defect, (counts.get(defect) ?? 0) + jars);
  const of = rows.reduce((sum, outcome) => sum + outcome.jars, 0);
  return [...counts].map(([defect, jars]) => ({ defect, name: defectOf(defect)?.name ?? defect, jars, of })).sort((a, b) => b.jars - a.jars);
};

/** Which rung of the ladder for a weak throw a trial has tried. */
const TRIED: Record<string, string[]> = { scent: ["oil"], wax: ["wax"], vessel: ["vessel"], "wick kind": ["wick"], "wick size": ["wick"] };
const ALL_TRIED = "everything was tried: use another scent, or use this candle in a smaller room";

/** The trials in which candles of a batch are burned. */
async function trialsOfBatch(db: Database, workshopId: string, batchId: string): Promise<{ plan: TrialPlan; state: TrialState }[]> {
  return db
    .select({ plan: trials.plan, state: trials.state })
    .from(trials)
    .where(
      and(
        eq(trials.workshopId, workshopId),
        sql`exists (select 1 from burn_outcome o where o.workshop_id = ${workshopId} and o.trial_id = ${trials.id} and o.batch_id = ${batchId})`,
      ),
    )
    .orderBy(desc(trials.number));
}

/** Returns what the shelf knows of the oil and the wick of a batch that its own record does not say. */
async function shelfRecord(db: Database, workshopId: string, plan: BatchPlan, key: string | undefined): Promise<DiagnosisRecord> {
  const oils = plan.pots[0]?.components.flatMap((part) => (part.kind === "fragrance" ? [part.id] : [])) ?? [];
  const product = plan.products.find((product) => product.key === key) ?? plan.products[0];
  const family = plan.pots[0]?.waxFamily ?? "";
  const [found, wicksHere] = await Promise.all([
    oils.length === 0
      ? []
      : db
          .select({ kind: fragrances.kind, strength: fragrances.strength })
          .from(fragrances)
          .where(and(eq(fragrances.workshopId, workshopId), inArray(fragrances.id, oils))),
    product?.wicks ? db.select().from(wicks).where(eq(wicks.workshopId, workshopId)) : [],
  ]);
  const wick = product?.wicks && wicksHere.find((wick) => wick.id === product.wicks?.wickId);
  const strengths = found.flatMap((item) => item.strength ?? []);
  const steps =
    product && wick ? sizeSteps(wick, wicksHere, shareUm(Math.min(product.innerTopUm, product.innerBottomUm), product.wicks?.count ?? 1), family) : null;
  return {
    ...(strengths.length > 0 ? { strong_oil: strengths.includes("strong") } : {}),
    ...(found.length > 0 ? { essential_oil: found.some((item) => item.kind === "essential oil") } : {}),
    ...(steps === null ? {} : { wick_size_steps: steps }),
    ...(wick?.families && wick.families.length > 0 && family !== "" ? { wick_suits_wax: wick.families.includes(family) } : {}),
  };
}

/** Returns why a batch shows a flaw: the known causes against its record, the workshop's history beside them; null if there is no such batch. */
export async function diagnoseBatch(db: Database, workshopId: string, batchId: string, asked: string | undefined, now: string): Promise<BatchDiagnosis | null> {
  const [row] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)));
  if (!row) return null;
  const { plan, state } = await readBatchState(db, row);
  const burned = await trialsOfBatch(db, workshopId, batchId);
  // What shows only in the flame is counted over the candles that burned, and nothing else over those.
  const flaws = [
    ...flawsOf(plan, state).filter((flaw) => defectOf(flaw.defect)?.seen !== "burning" || flaw.jars > 0),
    ...burnedFlaws(burned, batchId).map((burnedFlaw) => ({ ...burnedFlaw, name: defectOf(burnedFlaw.defect)?.name ?? burnedFlaw.defect })),
  ];
  const defect = asked && defectOf(asked) ? asked : (flaws[0]?.defect ?? null);
  const formula = await formulaOf(db, workshopId, row.formulaVersionId);
  const after = formula ? await followers(db, workshopId, formula.id, row.number) : [];
  const batch = {
    id: row.id,
    number: row.number,
    title: titleOf(plan),
    pouredAt: row.pouredAt && new Date(row.pouredAt).toISOString(),
    rehearsal: plan.rehearsal === true,
  };
  const none = { batch, flaws, defect, causes: [], change: null, next: null, class: null, unlike: [], fine: 0, formula, after };
  if (!defect) return none;
  const [tools, own] = await Promise.all([toolKinds(db, workshopId), readCustomCauses(db, workshopId)]);
  const product = state.flaws.find((flaw) => flaw.flaw.defect === defect)?.flaw.product;
  const candle = burned.flatMap((item) => burnedOfBatch(item.plan, batchId).map((testCandle) => ({ ...item, testCandle })));
  const shown = candle.find((item) => burningFlaws(item.plan, item.state, item.testCandle.key).includes(defect)) ?? candle[0];
  const isBurning = defectOf(defect)?.seen === "burning";
  const lit = isBurning && shown ? shown.state.testCandles[shown.testCandle.key]?.sessions[0]?.litAt : undefined;
  const read = diagnosisOf(plan, state, flawSeenAt(state, defect) ?? lit ?? now, tools, product);
  const about = {
    ...read,
    record: {
      ...read.record,
      ...(await shelfRecord(db, workshopId, plan, product)),
      ...(isBurning && shown ? recordOfBurn(shown.testCandle, shown.state) : {}),
    },
  };
  const found = diagnose({ ...about, defect }, own);
  const next =
    defect === "weak_hot_throw" && found.change === null
      ? nextForThrow({
          loadPpm: Math.round((about.record.load_percent_of_wax ?? about.record.asked_load_percent ?? 0) * 10_000),
          tried: [...new Set(burned.flatMap((item) => TRIED[item.plan.varies ?? ""] ?? []))],
          sooty: flaws.some((flaw) => flaw.defect === "soot"),
          cured: found.causes.every((cause) => cause.cause.key !== "cure_days" || cause.verdict !== "supported"),
          maxLoadPpm: plan.pots[0]?.maxLoadPpm ?? null,
          ...(plan.products[0] ? { fillMg: plan.products[0].fillMg } : {}),
          strongOil: about.record.strong_oil ?? null,
        })
      : null;
  const fine = await fineRecords(db, workshopId, batchId, plan.pots[0]?.waxFamily ?? "", defect);
  // What shows only in the flame is not counted over jars that were never lit.
  const factors = isBurning
    ? []
    : [...new Set(found.causes.flatMap(({ cause }) => (cause.key && FACTOR_OF[cause.key] ? [FACTOR_OF[cause.key] as string] : [])))];
  const histories = new Map(await Promise.all(factors.map(async (name) => [name, await historyOf(db, workshopId, defect, name)] as const)));
  return {
    ...none,
    causes: found.causes.map((cause) => ({ ...cause, history: histories.get((cause.cause.key && FACTOR_OF[cause.cause.key]) ?? "") ?? null })),
    change: found.change,
    next: next?.says ?? (defect === "weak_hot_throw" && found.change === null ? ALL_TRIED : null),
    class: found.class,
    unlike: unlikeFine(about.record, fine),
    fine: fine.length,
  };
}
