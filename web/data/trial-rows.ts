import { optionVerdict, optionWords, TRIAL, type TrialEvent, type TrialFacts, type TrialPlan, testerNow, widthOf } from "@hearth/core";
import { and, eq, inArray } from "drizzle-orm";
import type { Transaction } from "./client";
import { entryRows } from "./entry-rows";
import { burnOutcomes, type trialEvents } from "./tables/trial";

const rows = entryRows<TrialEvent>(TRIAL);
export const toTrialEvent = rows.toEvent;
export const trialEventRow = (workshopId: string, trialId: string, event: TrialEvent): typeof trialEvents.$inferInsert => ({
  ...rows.toRow(event),
  workshopId,
  trialId,
});

/** The earliest moment at which a tester that burned already burns still, or can be lit again. */
function handsFrom(plan: TrialPlan, facts: TrialFacts): string | null {
  const from = plan.testers.flatMap(({ key }) => {
    const one = facts.testers[key];
    const now = one ? testerNow(plan.protocol, one, facts.lastAt) : null;
    if (!one || !now || one.sessions.length === 0 || now.state === "stopped" || now.state === "done") return [];
    return [now.state === "burning" ? (one.sessions.at(-1)?.litAt ?? facts.lastAt) : (now.next?.at ?? facts.lastAt)];
  });
  return from.sort((a, b) => Date.parse(a) - Date.parse(b))[0] ?? null;
}

/** What the trial's row repeats of what follows from its entries. */
export const trialRow = (plan: TrialPlan, facts: TrialFacts) => ({
  name: plan.name,
  stage: facts.closed ? ("closed" as const) : ("open" as const),
  plan,
  facts,
  startedAt: facts.startedAt,
  lastAt: facts.lastAt,
  handsFrom: facts.closed ? null : handsFrom(plan, facts),
});

/** What is kept of each tester beside the log. */
export function burnRows(plan: TrialPlan, facts: TrialFacts) {
  const options = [...new Set(plan.testers.map((one) => one.option))];
  return options.flatMap((option) => {
    const words = optionWords(plan, option);
    const { testers } = optionVerdict(plan, facts, option);
    return testers.flatMap((verdict) => {
      const one = plan.testers.find((each) => each.key === verdict.key);
      if (!one) return [];
      const decided = facts.decided[option]?.verdict;
      return [
        {
          tester: one.key,
          option,
          says: words,
          productId: one.productId,
          batchId: one.batch?.id ?? null,
          bodyId: one.bodyId,
          vessel: one.vessel,
          widthUm: Math.round(widthOf(one) * 1_000),
          family: one.family,
          wax: one.wax,
          scent: one.scent,
          loadPpm: one.loadPpm,
          wickId: one.wick?.wickId ?? null,
          wickKind: one.wick?.kind ?? "",
          wickSize: one.wick?.size ?? "",
          wickName: one.wick?.name ?? "",
          wicks: one.wick?.count ?? 0,
          half: one.fill === "half",
          sessions: verdict.sessions,
          safe: verdict.safe,
          pool: verdict.pool.verdict,
          advice: verdict.advice.what,
          gramsPerHour: verdict.grams_per_hour?.value ?? null,
          decided: decided === "passed" || decided === "failed" ? decided : ("" as const),
        },
      ];
    });
  });
}

/** Writes what became of the testers; only those that an entry changed where `old` says what was there. */
export async function writeBurns(
  tx: Transaction,
  workshopId: string,
  trialId: string,
  plan: TrialPlan,
  facts: TrialFacts,
  old: TrialFacts | null,
): Promise<void> {
  const before = new Map((old ? burnRows(plan, old) : []).map((one) => [one.tester, JSON.stringify(one)]));
  const changed = burnRows(plan, facts).filter((one) => before.get(one.tester) !== JSON.stringify(one));
  if (changed.length === 0) return;
  await tx.delete(burnOutcomes).where(
    and(
      eq(burnOutcomes.workshopId, workshopId),
      eq(burnOutcomes.trialId, trialId),
      inArray(
        burnOutcomes.tester,
        changed.map((one) => one.tester),
      ),
    ),
  );
  await tx.insert(burnOutcomes).values(changed.map((one) => ({ ...one, workshopId, trialId })));
}
