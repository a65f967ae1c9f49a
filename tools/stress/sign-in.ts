import { v7 } from "uuid";
import { openDatabase } from "../../web/data/client";
import { freePort, passingHome } from "../processes";
import { serve } from "../serve";

const TRIES = 10_000;
const PAIRS = 150;
const AT_ONCE = 16;
const PASSWORD = "a sentence that nobody guesses";

const median = (all: readonly number[]): number => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)] ?? 0;

/** Returns the chance that a sum of ranks differs so far where nothing differs: Mann and Whitney's test, by its normal approximation. */
function chanceOf(a: readonly number[], b: readonly number[]): number {
  const all = [...a.map((value) => ({ value, of: 0 })), ...b.map((value) => ({ value, of: 1 }))].sort((item, other) => item.value - other.value);
  const ranks = all.reduce((sum, item, at) => sum + (item.of === 0 ? at + 1 : 0), 0);
  const u = ranks - (a.length * (a.length + 1)) / 2;
  const z = Math.abs(u - (a.length * b.length) / 2) / Math.sqrt((a.length * b.length * (a.length + b.length + 1)) / 12);
  // Abramowitz and Stegun 26.2.17, twice the upper tail.
  const t = 1 / (1 + 0.2316419 * z);
  const tail =
    (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return 2 * tail;
}

/** Ten thousand tries to sign in: on one name from many addresses, on many names from one; and whether a known name answers in another time than an unknown one. */
export async function signIn(): Promise<number> {
  process.env.HEARTH_LOG = "error";
  // The trial stands in for a proxy, so that it may say from where a try comes.
  const served = await serve({
    home: passingHome("sign-in"),
    port: await freePort(),
    ownDatabase: true,
    listening: { address: "127.0.0.1", proxies: ["127.0.0.1"] },
  });
  const { pool } = openDatabase(served.databaseUrl);
  const ask = async (act: string, given: object, from: string): Promise<{ status: number; ms: number }> => {
    const body = JSON.stringify(given);
    const began = performance.now();
    const answer = await fetch(`${served.url}/api/auth/${act}`, {
      method: "POST",
      headers: { "content-type": "application/json", "x-forwarded-for": from },
      body,
    });
    await answer.text();
    return { status: answer.status, ms: performance.now() - began };
  };
  const address = (n: number) => `10.${(n >> 16) & 255}.${(n >> 8) & 255}.${n & 255}`;
  const flood = async (item: (n: number) => Promise<{ status: number }>): Promise<Record<number, number>> => {
    const told: Record<number, number> = {};
    let n = 0;
    await Promise.all(
      Array.from({ length: AT_ONCE }, async () => {
        while (n < TRIES) {
          const { status } = await item(n++);
          told[status] = (told[status] ?? 0) + 1;
        }
      }),
    );
    return told;
  };
  try {
    const email = "ilvo@shed.example";
    const { status } = await ask("first", { code: served.firstCode, name: "Ilvo", email, password: PASSWORD }, "192.0.2.1");
    if (status !== 200) throw new Error(`The first account was not made: ${status}.`);
    const known: number[] = [];
    const unknown: number[] = [];
    for (let n = 0; n < PAIRS + 10; n++) {
      // Each is a first try; the order is by turns.
      await pool.query("delete from auth_attempt");
      const turns = [
        async () => (await ask("sign-in", { email, password: "wrong wrong wrong" }, address(n))).ms,
        async () => (await ask("sign-in", { email: `${v7()}@shed.example`, password: "wrong wrong wrong" }, address(n))).ms,
      ] as const;
      const first = n % 2;
      const a = await (turns[first] as () => Promise<number>)();
      const b = await (turns[1 - first] as () => Promise<number>)();
      if (n < 10) continue;
      known.push(first === 0 ? a : b);
      unknown.push(first === 0 ? b : a);
    }
    const chance = chanceOf(known, unknown);
    console.log(
      `a known name answers in ${median(known).toFixed(1)} ms, an unknown one in ${median(unknown).toFixed(1)} ms, at the median of ${PAIRS}; by chance alone p = ${chance.toFixed(3)} (at least 0.01)`,
    );

    await pool.query("delete from auth_attempt");
    const item = await flood((n) => ask("sign-in", { email, password: `guess ${n} of many` }, address(n)));
    console.log(`${TRIES} tries on one name from as many addresses: ${JSON.stringify(item)} (at most 8 looked at)`);
    await pool.query("delete from auth_attempt");
    const many = await flood((n) => ask("sign-in", { email: `${n}@shed.example`, password: `guess ${n} of many` }, "192.0.2.9"));
    console.log(`${TRIES} tries on as many names from one address: ${JSON.stringify(many)} (at most 60 looked at)`);
    const right = await ask("sign-in", { email, password: PASSWORD }, "192.0.2.200");
    console.log(`the right password from elsewhere is taken meanwhile: ${right.status}`);
    const limited = (item[401] ?? 0) <= 8 && (many[401] ?? 0) <= 60 && [item, many].every((all) => (all[401] ?? 0) + (all[429] ?? 0) === TRIES);
    return limited && chance >= 0.01 && right.status === 200 ? 0 : 1;
  } finally {
    await pool.end();
    await served.stop();
  }
}
