import { drizzle, type NodePgDatabase, type NodePgQueryResultHKT } from "drizzle-orm/node-postgres";
import type { PgDatabase } from "drizzle-orm/pg-core";
import { Pool, type PoolClient, type PoolConfig, type QueryResult } from "pg";

/** What statements are asked of: a transaction is one too. */
export type Database = PgDatabase<NodePgQueryResultHKT, Record<string, never>>;
export type Transaction = Parameters<Parameters<NodePgDatabase["transaction"]>[0]>[0];

/** Returns whether connections are this process's own for as long as they last: a pooler hands them on between transactions, and keeps nothing with them. */
const areOwn = () => !process.env.DATABASE_LISTEN_URL;

/** Time limits of a statement, of waiting for a lock, and of a transaction that does nothing, in ms. */
export const LIMITS = { statement_timeout: 20_000, lock_timeout: 8_000, idle_in_transaction_session_timeout: 30_000 };
/**
 * How statements run: without just-in-time compilation, since compiling one takes longer than any of this program runs; and with the memory that findings over ten
 * years take to count 14 factors at once, which by default go to the disk and take twice as long.
 */
const EXECUTION = { jit: "off", work_mem: "32MB" };
/** The same as the options of a connection. */
export const EXECUTION_OPTIONS = Object.entries(EXECUTION)
  .map(([name, value]) => `-c ${name}=${value}`)
  .join(" ");

/** Returns what the program asks of its connections; behind a pooler each transaction asks it with its first words. */
export const connecting = (): PoolConfig => (areOwn() ? { ...LIMITS, options: EXECUTION_OPTIONS } : {});
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** For whom a transaction works; the rows of all others do not exist in it. */
export interface Scope {
  workshop?: string;
  /** Who works in it, and by what that is known: what the audit log says of its changes. */
  person?: string | null;
  through?: string;
  /** For authentication, where accounts are looked up. */
  auth?: true;
}

/** Returns the settings that hold while a transaction of a scope runs. @throws Error if an id is none */
function settingsOf(scope: Scope): [name: string, value: string][] {
  const settings: Record<string, string | number> = areOwn() ? {} : { ...LIMITS, ...EXECUTION };
  if (scope.auth) settings["hearth.door"] = "on";
  for (const name of ["workshop", "person"] as const) {
    const id = scope[name];
    if (id === undefined || id === null) continue;
    if (!UUID.test(id)) throw new Error(`This is no id of a ${name}.`);
    settings[`hearth.${name}`] = id;
  }
  if (scope.through) settings["hearth.through"] = scope.through;
  return Object.entries(settings).map(([name, value]) => [name, String(value)]);
}

/** Sets what holds until the transaction ends: `set_config(name, value, true)`. */
async function set(client: PoolClient, settings: readonly [name: string, value: string][]): Promise<void> {
  if (settings.length === 0) return;
  const calls = settings.map((_, index) => `set_config($${2 * index + 1}, $${2 * index + 2}, true)`);
  await client.query(`select ${calls.join(", ")}`, settings.flat());
}

/** Returns a connection of the pool on which a transaction with these settings has begun. */
async function begin(pool: Pool, settings: readonly [name: string, value: string][], words = "begin"): Promise<PoolClient> {
  const client = await pool.connect();
  try {
    await client.query(words);
    await set(client, settings);
    return client;
  } catch (error) {
    await rollBack(client);
    throw error;
  }
}

/** Rolls a transaction back and gives its connection back; a connection that cannot even roll back is abandoned. */
async function rollBack(client: PoolClient): Promise<void> {
  const isBroken = await client.query("rollback").then(
    () => false,
    () => true,
  );
  client.release(isBroken);
}

type Query = (text: string | { text: string }, values?: unknown[]) => Promise<QueryResult>;

/**
 * The shared pool as one scope sees it. Each transaction begins by setting the scope; a single statement is a transaction of its own. It has
 * no connections of its own: it is a pool so that the query builder takes one connection for a transaction.
 */
class ScopedPool extends Pool {
  protected readonly settings: [name: string, value: string][];
  constructor(
    protected readonly shared: Pool,
    scope: Scope,
  ) {
    super({ max: 1 });
    this.settings = settingsOf(scope);
  }

  /** A connection that sets the scope with each "begin". */
  override connect = (async (): Promise<PoolClient> => {
    const client = await this.shared.connect();
    const { settings } = this;
    const query: Query = async (text, values) => {
      if (!/^begin\b/i.test(typeof text === "string" ? text : text.text)) return client.query(text as string, values);
      try {
        const result = await client.query(text as string, values);
        await set(client, settings);
        return result;
      } catch (error) {
        // The query builder gives a connection back only where a transaction began on it.
        client.release(true);
        throw error;
      }
    };
    return Object.create(client, { query: { value: query } }) as PoolClient;
  }) as Pool["connect"];

  override query = (async (text: string, values?: unknown[]): Promise<QueryResult> => {
    const client = await begin(this.shared, this.settings);
    try {
      const result = await client.query(text, values);
      await client.query("commit");
      client.release();
      return result;
    } catch (error) {
      await rollBack(client);
      throw error;
    }
  }) as Pool["query"];
}

/**
 * The same for what is only read, as a page is: statements that follow each other without a pause share one transaction, and see everything as it stood when that
 * began. They run one after another; the connection goes back as soon as no further one is asked, or one has failed.
 */
class SnapshotPool extends ScopedPool {
  private reading: PoolClient | null = null;
  private unanswered = 0;
  private last: Promise<unknown> = Promise.resolve();

  override query = ((text: string, values?: unknown[]): Promise<QueryResult> => {
    this.unanswered += 1;
    return this.inTurn(() => this.run(text, values));
  }) as Pool["query"];

  private async run(text: string, values?: unknown[]): Promise<QueryResult> {
    try {
      this.reading ??= await begin(this.shared, this.settings, "begin isolation level repeatable read read only");
      return await this.reading.query(text, values);
    } catch (error) {
      await this.close();
      throw error;
    } finally {
      this.unanswered -= 1;
      // By then whoever got this answer has asked what follows from it.
      setImmediate(() => {
        if (this.unanswered === 0) this.inTurn(() => this.close());
      });
    }
  }

  /** Ends the transaction, if one is open. It has written nothing, so that there is nothing to commit. */
  private async close(): Promise<void> {
    const client = this.reading;
    this.reading = null;
    if (client) await rollBack(client);
  }

  /** Runs something once all before it is done, whether well or not. */
  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const done = this.last.then(work);
    this.last = done.catch(() => undefined);
    return done;
  }
}

/** Returns the database as one scope sees it. */
export const scoped = (pool: Pool, scope: Scope): Database => drizzle(new ScopedPool(pool, scope));

/** Returns the database as one scope reads it, in one transaction for all that is read without a pause. */
export const snapshot = (pool: Pool, scope: Scope): Database => drizzle(new SnapshotPool(pool, scope));

/** Returns a pool for plain SQL statements in the same scope. */
export const scopedPool = (pool: Pool, scope: Scope): Pick<Pool, "query"> => new ScopedPool(pool, scope);
