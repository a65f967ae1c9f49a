import { RateLimiterPostgres, RateLimiterRes } from "rate-limiter-flexible";
import { doorPool } from "@/data/client";

/** So many tries within so many seconds, and then none for so long. */
const LIMITS = {
  /** Passwords and second factors, for one name. */
  name: { points: 8, duration: 900, blockDuration: 900 },
  /** The same from one address, whatever the names; a workshop shares one. */
  address: { points: 60, duration: 900, blockDuration: 900 },
  /** A person's PIN on one device. */
  pin: { points: 5, duration: 900, blockDuration: 900 },
  /** Codes that ask a device in, links and printed codes, from one address. */
  code: { points: 20, duration: 900, blockDuration: 900 },
} as const;
type Kind = keyof typeof LIMITS;

const kept = globalThis as unknown as { hearthTries?: Partial<Record<Kind, RateLimiterPostgres>> };

function limiter(kind: Kind): RateLimiterPostgres {
  kept.hearthTries ??= {};
  kept.hearthTries[kind] ??= new RateLimiterPostgres({
    storeClient: doorPool(),
    storeType: "pool",
    tableName: "door_try",
    tableCreated: true,
    clearExpiredByTimeout: false,
    keyPrefix: kind,
    // Behind several servers one table counts for all.
    ...LIMITS[kind],
  });
  return kept.hearthTries[kind];
}

/** Counts a try. Gives null where it may be made, or in how many seconds it may be made again. */
export async function tryOf(kind: Kind, key: string): Promise<number | null> {
  try {
    await limiter(kind).consume(key.toLowerCase().slice(0, 200));
    return null;
  } catch (refused) {
    if (refused instanceof RateLimiterRes) return Math.max(1, Math.ceil(refused.msBeforeNext / 1_000));
    throw refused;
  }
}

/** What was right is forgotten: only wrong tries count. */
export const forgetTries = (kind: Kind, key: string): Promise<boolean> => limiter(kind).delete(key.toLowerCase().slice(0, 200));
