import { CHECKED_TRIAL, TRIAL_STATE_VERSION, type TrialEvent, type TrialPlan, type TrialState, trialPlan } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import type { Transaction } from "@/data/client";
import { trialEvents, trials } from "@/data/tables/trial";
import { toTrialEvent, trialEventRow, trialRow, writeBurns } from "@/data/trial-rows";
import { followLit } from "@/server/burn/test-candles";
import { followTests } from "@/server/burn/wick-tests";
import { type AggregateStore, readEvents } from "./aggregate-store";

const condition = (workshopId: string, id: string) => and(eq(trials.workshopId, workshopId), eq(trials.id, id));
type Row = typeof trials.$inferSelect;
const EVENTS = { eventTable: trialEvents, aggregateId: trialEvents.trialId, toEvent: toTrialEvent };

export const readTrialEvents = (tx: Transaction, workshopId: string, id: string): Promise<TrialEvent[]> => readEvents(EVENTS, tx, workshopId, id);

/** How burn trials are kept: with an entry go what became of each test candle, and the state of the products that were decided on. */
export const trialStore: AggregateStore<TrialState, TrialPlan, TrialEvent, Row> = {
  ...EVENTS,
  what: "trial",
  subject: CHECKED_TRIAL,
  toRow: trialEventRow,
  aggregateTable: trials,
  columns: (_row, plan, state) => trialRow(plan, state),
  readRow: async (tx, workshopId, id, lock) => {
    const asked = tx.select().from(trials).where(condition(workshopId, id));
    return (await (lock ? asked.for("no key update") : asked))[0] ?? null;
  },
  readState: async (tx, row) =>
    row.state.format === TRIAL_STATE_VERSION
      ? { plan: trialPlan.parse(row.plan), state: row.state }
      : CHECKED_TRIAL.of(await readTrialEvents(tx, row.workshopId, row.id)),
  writeDerived: async (tx, { workshopId, id, row, plan, state, before }) => {
    await followLit(tx, workshopId, row.number, plan, state, before);
    await writeBurns(tx, workshopId, id, plan, state, before);
    await followTests(tx, workshopId, plan, state, before);
  },
};
