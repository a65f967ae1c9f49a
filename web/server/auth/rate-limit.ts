import { RateLimiterPostgres, RateLimiterRes } from "rate-limiter-flexible";
import { authPool } from "@/data/client";
import { processSingleton } from "@/data/process-singleton";
import { hashOf } from "./secrets";

/** So many tries within so many seconds, and then none for so long. */
const LIMITS = {
  /** Passwords and second factors, for one name. */
  name: { points: 8, duration: 900, blockDuration: 900 },
  /** The same from one address, whatever the names; a workshop shares one. */
  address: { points: 60, duration: 900, blockDuration: 900 },
  /** A person's PIN on one device. */
  pin: { points: 5, duration: 900, blockDuration: 900 },
  /** The same PIN on all devices together, so that nobody tries on from day to day. */
  person: { points: 20, duration: 86_400, blockDuration: 86_400 },
  /** A code of an authenticator, which opens once: it holds for a minute and a half at most (RFC 6238, 5.2). */
  used: { points: 1, duration: 120, blockDuration: 120 },
  /** An address from which a name signed in before: others' tries on that name do not stop it. */
  known: { points: 8, duration: 900, blockDuration: 900 },
  /** Codes that ask a device in, links and printed codes, from one address. */
  code: { points: 20, duration: 900, blockDuration: 900 },
} as const;
type Kind = keyof typeof LIMITS;

const limiters = () => processSingleton("limiters of tries", (): Partial<Record<Kind, RateLimiterPostgres>> => ({}));

function limiter(kind: Kind): RateLimiterPostgres {
  const all = limiters();
  all[kind] ??= new RateLimiterPostgres({
    storeClient: authPool(),
    storeType: "pool",
    tableName: "auth_attempt",
    tableCreated: true,
    clearExpiredByTimeout: false,
    keyPrefix: kind,
    // Behind several servers one table counts for all.
    ...LIMITS[kind],
  });
  return all[kind];
}

/** Counts a try. Gives null if it may be made, or in how many seconds it may be made again. */
export async function tryOf(kind: Kind, key: string): Promise<number | null> {
  try {
    await limiter(kind).consume(key.toLowerCase().slice(0, 200));
    return null;
  } catch (refused) {
    if (refused instanceof RateLimiterRes) return Math.max(1, Math.ceil(refused.msBeforeNext / 1_000));
    throw refused;
  }
}

/** For how long an address is remembered from which somebody signed in, in seconds. */
const REMEMBERED_S = 90 * 86_400;
const addressKey = (name: string, address: string): string => `address ${hashOf(`${name.toLowerCase()} ${address}`).slice(0, 40)}`;

/** Records that a name signed in from this network address. */
export const rememberAddress = async (name: string, address: string): Promise<void> =>
  void (await limiter("known").set(addressKey(name, address), 0, REMEMBERED_S));

/** Counts a try on a name: by itself where it comes from an address that is known for it, and otherwise together with all tries on that name. */
export async function tryOfName(name: string, address: string): Promise<number | null> {
  const isKnown = (await limiter("known").get(addressKey(name, address))) !== null;
  return isKnown ? tryOf("known", `${name} ${hashOf(address).slice(0, 40)}`) : tryOf("name", name);
}

/** Deletes the counted attempts of a name after a successful one. */
export const forgetTries = (kind: Kind, key: string): Promise<boolean> => limiter(kind).delete(key.toLowerCase().slice(0, 200));
