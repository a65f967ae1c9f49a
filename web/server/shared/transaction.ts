import type { Problem, Result } from "@hearth/core";
import type { Database, Transaction } from "@/data/client";

/** Rolls a transaction back where what was asked for is refused in the middle of it. */
class Rollback extends Error {
  constructor(readonly outcome: Problem) {
    super("refused");
  }
}

/** Runs within one transaction: all of it, or, where it is refused or fails, nothing. The one place in which a refused result rolls back. */
export async function inTransaction<T>(db: Database, run: (tx: Transaction) => Promise<Result<T>>): Promise<Result<T>> {
  try {
    return await db.transaction(async (tx) => {
      const outcome = await run(tx);
      if (!outcome.ok) throw new Rollback(outcome);
      return outcome;
    });
  } catch (error) {
    if (error instanceof Rollback) return error.outcome;
    throw error;
  }
}
