import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import pg, { type Pool, type PoolClient, type QueryResult } from "pg";

export type Database = NodePgDatabase;
export type Transaction = Parameters<Parameters<Database["transaction"]>[0]>[0];

/** What the program asks of a transaction, told with its first words: a connection that others share between transactions keeps nothing of it. */
const LIMITS = { statement_timeout: "20000", lock_timeout: "8000", idle_in_transaction_session_timeout: "30000", jit: "off" };
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** For whom a transaction works; the rows of all others do not exist in it. */
export interface Scope {
  workshop?: string;
  /** Who works in it, and by what that is known: what the trail says of its changes. */
  person?: string | null;
  through?: string;
  /** At the door, where accounts are looked up. */
  door?: true;
}

function tellingOf(scope: Scope): string {
  const said: Record<string, string> = { ...LIMITS };
  if (scope.door) said["hearth.door"] = "on";
  for (const name of ["workshop", "person"] as const) {
    const id = scope[name];
    if (id === undefined || id === null) continue;
    // It is written into the words themselves, so it is nothing else than an id.
    if (!UUID.test(id)) throw new Error(`This is no id of a ${name}.`);
    said[`hearth.${name}`] = id;
  }
  if (scope.through) said["hearth.through"] = scope.through;
  return `select ${Object.entries(said)
    .map(([name, value]) => `set_config('${name}', ${pg.escapeLiteral(value)}, true)`)
    .join(", ")}`;
}

type Ask = (text: unknown, values?: unknown) => Promise<QueryResult>;

/** A statement that was asked so often is planned once for each connection, and not each time: planning takes longer than most of them run. */
const OFTEN = 20;
const MOST_PLANNED = 100;
const MOST_COUNTED = 1_000;
/** One for the process, as its pool is: a build holds this module several times, and no two of them may give one name to two statements. */
const kept = globalThis as unknown as { hearthAsked?: { of: Map<string, { times: number; name?: string }>; planned: number } };

/** The statement, named where it is asked often. Behind a pooler connections are handed on, and nothing is kept with them. */
function named(asked: { text: string }): { text: string; name?: string } {
  if (process.env.DATABASE_LISTEN_URL) return asked;
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

/** A connection on which each transaction begins by saying for whom it works. */
class ScopedClient {
  private spoilt = false;
  constructor(
    private readonly client: PoolClient,
    private readonly telling: string,
  ) {}
  query(asked: { text: string }, values?: unknown): Promise<QueryResult> {
    const ask = this.client.query.bind(this.client) as unknown as Ask;
    if (/^begin\b/i.test(asked.text)) return ask(`${asked.text}; ${this.telling}`);
    if (values === undefined) return ask(asked);
    return ask(named(asked), values).catch((error: { code?: string }) => {
      // What was planned no longer fits the tables, as after a migration by another server: the connection goes, and its plans with it.
      if (error.code === "0A000") this.spoilt = true;
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
  async query(asked: { text: string }, values?: unknown): Promise<QueryResult> {
    const client = await this.pool.connect();
    const ask = client.query.bind(client) as unknown as Ask;
    // A connection on which even that much fails is given up.
    let broken = true;
    try {
      await ask(`begin; ${this.telling}`);
      const answered = await ask(asked, values).catch(async (error: unknown) => {
        await ask("rollback");
        broken = false;
        throw error;
      });
      await ask("commit");
      broken = false;
      return answered;
    } finally {
      client.release(broken);
    }
  }
}

// A transaction takes one connection of what is called a pool, also where a builder has shortened the names.
Object.defineProperty(ScopedPool, "name", { value: "ScopedPool" });

/** The database as one scope sees it. */
export const scoped = (pool: Pool, scope: Scope): Database => drizzle(new ScopedPool(pool, scope) as unknown as Pool);

/** The same for plain statements. */
export const scopedPool = (pool: Pool, scope: Scope): Pick<Pool, "query"> => new ScopedPool(pool, scope) as unknown as Pool;
