import { drizzle } from "drizzle-orm/node-postgres";
import { Pool, type PoolConfig } from "pg";
import { causesOf } from "./causes";
import { processSingleton } from "./process-singleton";
import { connecting, type Database, EXECUTION_OPTIONS, LIMITS, type Scope, scoped, scopedPool, snapshot, type Transaction } from "./tenant-scope";

export type { Database, Transaction };

/** For how long a connection is waited for, ms: a page that is late is better than an error where the machine stood still for some seconds. */
export const CONNECTION_TIMEOUT_MS = 15_000;

/** An idle connection that dies is not the end of the process; the next query says what is wrong. The pool replaces connections by itself. */
function poolOf(config: PoolConfig): Pool {
  const pool = new Pool({ max: 10, connectionTimeoutMillis: CONNECTION_TIMEOUT_MS, idleTimeoutMillis: 30_000, keepAlive: true, ...config });
  pool.on("error", (error: Error & { code?: string }) => console.error("database connection lost:", error.code ?? ""));
  // One that dies while it is in use tells those who asked something of it; told to nobody else, it would end the process.
  pool.on("connect", (client) => void client.on("error", () => undefined));
  return pool;
}

/** Opens a database as the owner of its tables, who sees all workshops: to migrate it, and to load what others made. */
export function openDatabase(url: string, limits: Pick<PoolConfig, "statement_timeout" | "lock_timeout"> = {}): { db: Database; pool: Pool } {
  const pool = poolOf({
    connectionString: url,
    statement_timeout: LIMITS.statement_timeout,
    lock_timeout: LIMITS.lock_timeout,
    // The last lets nobody but the owner past the walls between workshops.
    options: `${EXECUTION_OPTIONS} -c hearth.everything=on`,
    ...limits,
  });
  return { db: drizzle(pool), pool };
}

/** So many views of the pool are kept at hand. */
const MAX_VIEWS = 1_000;

/** Returns the one pool of this process, opened at first use from DATABASE_URL. Nothing is asked of it but through a scope. */
const held = () =>
  processSingleton(DATABASE, () => {
    const url = process.env.DATABASE_URL;
    if (!url) throw new Error("DATABASE_URL is not set: start Hearth Jar with ./hearth demo or ./hearth dev.");
    return {
      pool: poolOf({ connectionString: url, max: Number(process.env.HEARTH_CONNECTIONS) || 10, ...connecting() }),
      views: new Map<string, Database>(),
    };
  });
/** The name under which the pool is stored among the singletons of the process. */
export const DATABASE = "database";

/** Returns how many connections there are, and how many wait for one. */
export const poolCounts = (): { total: number; waiting: number } => {
  if (!process.env.DATABASE_URL) return { total: 0, waiting: 0 };
  const { totalCount: total, waitingCount: waiting } = held().pool;
  return { total, waiting };
};

/** Returns the pool as one scope sees it. */
function viewOf(scope: Scope): Database {
  const { pool, views } = held();
  const key = JSON.stringify([scope.workshop, scope.person, scope.through, scope.auth]);
  let db = views.get(key);
  if (!db) {
    if (views.size >= MAX_VIEWS) views.clear();
    db = scoped(pool, scope);
    views.set(key, db);
  }
  return db;
}

/** The database as one workshop sees it: rows of others are not there, and none can be written among them. */
export const tenantDatabase = (workshopId: string, by: Pick<Scope, "person" | "through"> = {}): Database => viewOf({ workshop: workshopId, ...by });

/** Returns a workshop's database for one page: what it reads without a pause is of one moment, and it can write nothing. */
export const tenantSnapshot = (workshopId: string): Database => snapshot(held().pool, { workshop: workshopId });

/** Returns the database for authentication: accounts, and no row of any workshop. */
export const authDatabase = (): Database => viewOf({ auth: true });

/** Returns the same for plain statements, as a library asks them. */
export const authPool = () => scopedPool(held().pool, { auth: true });

/** Returns the database for a caller without a workshop: it sees no row of any. */
export const databaseWithoutTenant = (): Database => viewOf({});

/** Reads several things as they stood at one moment, whatever is written meanwhile. */
export const atOneMoment = <T>(db: Database, read: (tx: Transaction) => Promise<T>): Promise<T> =>
  db.transaction(read, { isolationLevel: "repeatable read", accessMode: "read only" });

/** Returns the SQLSTATE of an error, or of what caused it; nothing where the database did not say. */
export function codeOf(error: unknown): string {
  for (const { code } of causesOf(error)) if (typeof code === "string") return code;
  return "";
}

/** Returns whether an error means that the database is away or too busy just now, rather than that a statement was wrong. */
export function isUnavailable(error: unknown): boolean {
  for (const { code, message } of causesOf(error)) {
    // Connections that end or are refused; statements and locks that took too long; nothing is written while a backup is restored, and for a
    // moment there is no database of that name (3D000); no room on the disk.
    if (/^(ECONN|EPIPE|ETIMEDOUT|ENOTFOUND|57P0|57014|55P03|25P03|25006|3D000|08|53)/.test(String(code ?? ""))) return true;
    if (/Connection terminated|timeout exceeded when trying to connect|not queryable/i.test(String(message ?? ""))) return true;
  }
  return false;
}
