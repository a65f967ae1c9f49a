import { afterAll, beforeAll, beforeEach } from "vitest";
import { type TestDatabase, testDatabase } from "./database";
import { jar } from "./headers";
import { storedBatch } from "./stored-batch";

/** The database of this file's tests, and for each test a workshop of its own with a shelf and a started batch. Set anew before each. */
export let test: TestDatabase;
export let workshopId = "";
export let stored: Awaited<ReturnType<typeof storedBatch>>;

/** Returns the page that sends: it names its workshop. */
export const here = () => ({ workshopId, personId: stored.person });
/** Returns what a command gave; a refusal fails the test with its words. */
export const value = <T>(outcome: { ok: true; value: T } | { ok: false; message: string }): T => {
  if (!outcome.ok) throw new Error(outcome.message);
  return outcome.value;
};

/** Gives each test of a file such a workshop, as the one that the request's cookies name. The file itself mocks next's headers and cache. */
export function inStoredWorkshop(): void {
  beforeAll(async () => {
    test = await testDatabase();
    process.env.DATABASE_URL = test.url;
  });
  afterAll(() => test.pool.end());
  beforeEach(async () => {
    workshopId = await test.workshop();
    stored = await storedBatch(test, workshopId);
    jar.clear();
    jar.set("hearth_workshop", workshopId);
  });
}
