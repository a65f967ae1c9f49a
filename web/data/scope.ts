import { drizzle, type NodePgDatabase, type NodePgQueryResultHKT } from "drizzle-orm/node-postgres";
import type { PgDatabase } from "drizzle-orm/pg-core";
import pg, { type Pool, type PoolClient, type PoolConfig, type QueryResult } from "pg";

/** What statements are asked of: a transaction is one too. */
export type Database = PgDatabase<NodePgQueryResultHKT, Record<string, never>>;
export type Transaction = Parameters<Parameters<NodePgDatabase["transaction"]>[0]>[0];

/** Whether connections are this process's own for as long as they last: a pooler hands them on between transactions, and keeps nothing with them. */
const areOwn = () => !process.env.DATABASE_LISTEN_URL;

/** One slow statement, or one that waits for another, holds up nobody for longer: ms. */
export const LIMITS = { statement_timeout: 20_000, lock_timeout: 8_000, idle_in_transaction_session_timeout: 30_000 };
/** Compiling a statement takes longer than any of ours runs. */
export const UNCOMPILED = "-c jit=off";

/** What the program asks of its connections; behind a pooler each transaction asks it with its first words. Our own also take statements that need not wait for each other's answers together. */
export const connecting = (): PoolConfig => (areOwn() ? { ...LIMITS, options: UNCOMPILED, pipeline: true } : {});
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** For whom a transaction works; the rows of all others do not exist in it. */
export interface Scope {
  workshop?: string;
  /** Who works in it, and by what that is known: what the trail says of its changes. */
  person?: string | null;
  through?: string;
  /** At the door, where accounts are looked up. */
  door?: true;
  /** All that is asked is found by its key, so that one plan does for whatever is asked for. */
  byKey?: true;
}

function tellingOf(scope: Scope): string {
  const said: Record<string, string | number> = areOwn() ? {} : { ...LIMITS, jit: "off" };
  if (scope.door) said["hearth.door"] = "on";
  if (scope.byKey) said.plan_cache_mode = "force_generic_plan";
  for (const name of ["workshop", "person"] as const) {
    const id = scope[name];
    if (id === undefined || id === null) continue;
    // It is written into the words themselves, so it is nothing else than an id.
    if (!UUID.test(id)) throw new Error(`This is no id of a ${name}.`);
    said[`hearth.${name}`] = id;
  }
  if (scope.through) said["hearth.through"] = scope.through;
  // By words that answer nothing: reading an answer takes longer than they do.
  return Object.entries(said)
    .map(([name, value]) => `; set local ${name} to ${pg.escapeLiteral(String(value))}`)
    .join("");
}

type Settled = PromiseSettledResult<QueryResult>;
type Ask = (text: unknown, values?: unknown) => Promise<QueryResult>;

/** A statement that was asked so often is planned once for each connection, and not each time: planning takes longer than most of them run. */
const OFTEN = 20;
const MOST_PLANNED = 100;
const MOST_COUNTED = 1_000;
/** One for the process, as its pool is: a build holds this module several times, and no two of them may give one name to two statements. */
const kept = globalThis as unknown as { hearthAsked?: { of: Map<string, { times: number; name?: string }>; planned: number } };

/** The statement, named where it is asked often. */
function named(asked: { text: string }): { text: string; name?: string } {
  if (!areOwn()) return asked;
  kept.hearthAsked ??= { of: new Map(), planned: 0 };
  const all = kept.hearthAsked;
  const known = all.of.get(asked.text) ?? { times: 0 };
  if (known.times === 0) {
    if (all.of.size >= MOST_COUNTED) for (const [text, one] of all.of) if (!one.name) all.of.delete(text);
    all.of.set(asked.text, known);
  }
  known.times += 1;
  if (!known.name && known.times >= OFTEN && all.planned < MOST_PLANNED) known.name = `often_${all.planned++}`;
  return known.name ? { ...asked, name: known.name } : asked;
}

/** What was planned no longer fits the tables, as after a migration by another server: the connection goes, and its plans with it. */
const isOutdated = (error: unknown): boolean => (error as { code?: string }).code === "0A000";
const asking = (client: PoolClient): Ask => client.query.bind(client) as unknown as Ask;

/** Says how each ended: sent all at once where the connection takes them so, or one after another. */
async function settled(client: PoolClient, steps: (() => Promise<QueryResult>)[]): Promise<Settled[]> {
  if (client.pipeline) {
    const { stream } = client.connection;
    stream.cork();
    const all = steps.map((step) => step());
    stream.uncork();
    return Promise.allSettled(all);
  }
  const ended: Settled[] = [];
  for (const step of steps) ended.push(...(await Promise.allSettled([step()])));
  return ended;
}

/** A connection on which each transaction begins by saying for whom it works. */
class ScopedClient {
  private spoilt = false;
  private begun: Promise<unknown> = Promise.resolve();
  constructor(
    private readonly client: PoolClient,
    private readonly telling: string,
  ) {}
  async query(asked: { text: string }, values: unknown[] = []): Promise<Pick<QueryResult, "rows">> {
    const ask = asking(this.client);
    if (/^begin\b/i.test(asked.text)) {
      this.begun = ask(`${asked.text}${this.telling}`);
      // Where the connection takes one after another unanswered, the first of them is not waited for: what follows one that failed fails too.
      if (this.client.pipeline) this.begun.catch(() => undefined);
      else await this.begun;
      return { rows: [] };
    }
    return ask(named(asked), values).catch(async (error: unknown) => {
      if (isOutdated(error)) this.spoilt = true;
      await this.begun;
      throw error;
    });
  }
  release(): void {
    this.client.release(this.spoilt);
  }
}

/** Connections of one pool that see the rows of one workshop. A single statement is a transaction of its own. */
class ScopedPool {
  private readonly telling: string;
  constructor(
    private readonly pool: Pool,
    scope: Scope,
  ) {
    this.telling = tellingOf(scope);
  }
  async connect(): Promise<ScopedClient> {
    return new ScopedClient(await this.pool.connect(), this.telling);
  }
  async query(asked: { text: string }, values?: unknown, plannedAnew = false): Promise<QueryResult> {
    const client = await this.pool.connect();
    const ask = asking(client);
    // Where the statement fails, what ends it takes all of it back.
    const [begun, answered, ended] = (await settled(client, [
      () => ask(`begin${this.telling}`),
      () => ask(values === undefined || plannedAnew ? asked : named(asked), values),
      () => ask("commit"),
    ])) as [Settled, Settled, Settled];
    const outdated = answered.status === "rejected" && isOutdated(answered.reason);
    // A connection on which even beginning and ending fails is given up.
    client.release(outdated || begun.status === "rejected" || ended.status === "rejected");
    if (outdated && !plannedAnew) return this.query(asked, values, true);
    for (const one of [begun, ended]) if (one.status === "rejected") throw one.reason;
    if (answered.status === "rejected") throw answered.reason;
    return answered.value;
  }
}

// A transaction takes one connection of what is called a pool, also where a builder has shortened the names.
Object.defineProperty(ScopedPool, "name", { value: "ScopedPool" });

/** The database as one scope sees it. */
export const scoped = (pool: Pool, scope: Scope): Database => drizzle(new ScopedPool(pool, scope) as unknown as Pool);

/** The same for plain statements. */
export const scopedPool = (pool: Pool, scope: Scope): Pick<Pool, "query"> => new ScopedPool(pool, scope) as unknown as Pool;
