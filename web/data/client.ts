import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import { Pool } from "pg";

export type Database = NodePgDatabase;
export type Transaction = Parameters<Parameters<Database["transaction"]>[0]>[0];

/** Opens a database by its URL. The pool replaces connections by itself after the server has been away. */
export function openDatabase(url: string): { db: Database; pool: Pool } {
  const pool = new Pool({ connectionString: url, max: 10, connectionTimeoutMillis: 4_000, idleTimeoutMillis: 30_000 });
  // An idle connection that dies is not the end of the process; the next query says what is wrong.
  pool.on("error", (error) => console.error("database connection lost:", error.message));
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

/** Whether an error means that the database is away, rather than that a statement was wrong. */
export function isAway(error: unknown): boolean {
  for (let at: unknown = error; at; at = (at as { cause?: unknown }).cause) {
    const code = (at as { code?: string }).code ?? "";
    const message = (at as { message?: string }).message ?? "";
    if (/^(ECONN|EPIPE|ETIMEDOUT|ENOTFOUND|57P0|08|53300)/.test(code)) return true;
    if (/Connection terminated|timeout exceeded when trying to connect/i.test(message)) return true;
  }
  return false;
}
