import { CHECKED_TRIAL, TRIAL_FORMAT, type TrialEvent, type TrialFacts, type TrialPlan, trialPlan } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import type { Transaction } from "@/data/client";
import { trialEvents, trials } from "@/data/tables/trial";
import { toTrialEvent, trialEventRow, trialRow, writeBurns } from "@/data/trial-rows";
import { entriesOf, type Keeper } from "./keeper";
import { readOnce } from "./read-once";
import { followLit } from "./testers";
import { followTests } from "./wick-tests";

const mine = (workshopId: string, id: string) => and(eq(trials.workshopId, workshopId), eq(trials.id, id));
type Row = typeof trials.$inferSelect;
const OF = { table: trialEvents as never, of: trialEvents.trialId, toEvent: toTrialEvent } as Pick<
  Keeper<TrialFacts, TrialPlan, TrialEvent>,
  "table" | "of" | "toEvent"
>;

export const trialEventsOf = (tx: Transaction, workshopId: string, id: string): Promise<TrialEvent[]> => entriesOf(OF, tx, workshopId, id);

const planOf = readOnce((stored) => trialPlan.parse(stored));

/** How burn trials are kept: with an entry go what became of each tester, and the state of the products that were decided on. */
export const TRIALS: Keeper<TrialFacts, TrialPlan, TrialEvent, Row> = {
  ...OF,
  what: "trial",
  subject: CHECKED_TRIAL,
  ofRow: (row) => (row as typeof trialEvents.$inferSelect).trialId,
  toRow: trialEventRow as never,
  rows: trials,
  columns: (_row, plan, facts) => trialRow(plan, facts),
  row: async (tx, workshopId, id, lock) => {
    const asked = tx.select().from(trials).where(mine(workshopId, id));
    return (await (lock ? asked.for("no key update") : asked))[0] ?? null;
  },
  kept: async (tx, row) =>
    row.facts.format === TRIAL_FORMAT ? { plan: planOf(row.plan), facts: row.facts } : CHECKED_TRIAL.of(await trialEventsOf(tx, row.workshopId, row.id)),
  follow: async (tx, { workshopId, id, row, plan, facts, before }) => {
    await followLit(tx, workshopId, row.number, plan, facts, before);
    await writeBurns(tx, workshopId, id, plan, facts, before);
    await followTests(tx, workshopId, plan, facts, before);
  },
};
