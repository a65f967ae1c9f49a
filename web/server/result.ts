import type { Database, Transaction } from "@/data/client";

/** What a command gives back: its value, or what is wrong, field by field. */
export type Outcome<T> = { ok: true; value: T } | { ok: false; message: string; fields: Record<string, string[]> };

export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });
export const refused = (message: string, fields: Record<string, string[]> = {}): Outcome<never> => ({ ok: false, message, fields });

/** Rolls a transaction back where what was asked for is refused in the middle of it. */
class Rollback extends Error {
  constructor(readonly outcome: Outcome<never>) {
    super("refused");
  }
}

/** Runs within one transaction: all of it, or, where it is refused or fails, nothing. The one place in which a refused result rolls back. */
export async function inTransaction<T>(db: Database, run: (tx: Transaction) => Promise<Outcome<T>>): Promise<Outcome<T>> {
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
