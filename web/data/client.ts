import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import { Pool, type PoolConfig } from "pg";

const STATEMENT_MS = 20_000;
const LOCK_MS = 8_000;
const IDLE_MS = 30_000;

export type Database = NodePgDatabase;
export type Transaction = Parameters<Parameters<Database["transaction"]>[0]>[0];

/** Opens a database by its URL. The pool replaces connections by itself after the server has been away. */
export function openDatabase(url: string, limits: Pick<PoolConfig, "statement_timeout" | "lock_timeout"> = {}): { db: Database; pool: Pool } {
  const pool = new Pool({
    connectionString: url,
    max: 10,
    connectionTimeoutMillis: 4_000,
    idleTimeoutMillis: 30_000,
    // One slow statement, or one that waits for another, holds up nobody for longer.
    statement_timeout: STATEMENT_MS,
    lock_timeout: LOCK_MS,
    idle_in_transaction_session_timeout: IDLE_MS,
    // Compiling a statement takes longer than any of ours runs.
    options: "-c jit=off",
    ...limits,
  });
  // An idle connection that dies is not the end of the process; the next query says what is wrong.
  pool.on("error", (error: Error & { code?: string }) => console.error("database connection lost:", error.code ?? ""));
  return { db: drizzle(pool), pool };
}

const kept = globalThis as unknown as { hearthDatabase?: ReturnType<typeof openDatabase> };

/** The one database of this process, opened at first use from DATABASE_URL. */
export function database(): Database {
  if (!kept.hearthDatabase) {
    const url = process.env.DATABASE_URL;
    if (!url) throw new Error("DATABASE_URL is not set: start Hearth Jar with ./hearth demo or ./hearth dev.");
    kept.hearthDatabase = openDatabase(url);
  }
  return kept.hearthDatabase.db;
}

/** Reads several things as they stood at one moment, whatever is written meanwhile. */
export const atOneMoment = <T>(db: Database, read: (tx: Transaction) => Promise<T>): Promise<T> =>
  db.transaction(read, { isolationLevel: "repeatable read", accessMode: "read only" });

/** Whether an error means that the database is away or too busy just now, rather than that a statement was wrong. */
export function isAway(error: unknown): boolean {
  for (let at: unknown = error; at; at = (at as { cause?: unknown }).cause) {
    const code = (at as { code?: string }).code ?? "";
    const message = (at as { message?: string }).message ?? "";
    // Connections that end or are refused; statements and locks that took too long; no room on the disk.
    if (/^(ECONN|EPIPE|ETIMEDOUT|ENOTFOUND|57P0|57014|55P03|25P03|08|53)/.test(code)) return true;
    if (/Connection terminated|timeout exceeded when trying to connect/i.test(message)) return true;
  }
  return false;
}
