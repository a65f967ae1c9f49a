import autocannon from "autocannon";
import { v7 } from "uuid";
import { demoId, WORKSHOP } from "../../demo/workshop";
import { freePort, passingHome } from "../processes";
import { serve } from "../serve";

const CLIENTS = 20;
const POT = demoId(8, 6);

interface Load {
  name: string;
  perSecond: number;
  p95: number;
  errors: number;
}

/** Twenty clients, one after another at today, at a pot, and posting entries (which comes last, since it makes the pot's page longer). Times are in milliseconds. */
async function loadOf(url: string, seconds: number, posts = true): Promise<Load[]> {
  const run = async (name: string, options: Partial<autocannon.Options>): Promise<Load> => {
    const out = await autocannon({ url, connections: CLIENTS, duration: seconds, ...options } as autocannon.Options);
    return { name, perSecond: out.requests.average, p95: out.latency.p97_5, errors: out.errors + out.timeouts + out.non2xx };
  };
  const entry = () =>
    JSON.stringify({ id: v7(), kind: "note", happenedAt: new Date(Date.now() - 1_000).toISOString(), personId: null, payload: { text: "under load" } });
  return [
    await run("today", { url: `${url}/w/${WORKSHOP.id}` }),
    await run("a pot", { url: `${url}/w/${WORKSHOP.id}/bench/${POT}` }),
    ...(posts
      ? [
          await run("posts", {
            url: `${url}/api/workshops/${WORKSHOP.id}/batches/${POT}/events`,
            method: "POST",
            headers: { "content-type": "application/json" },
            requests: [{ setupRequest: (request: object) => ({ ...request, body: entry() }) }],
          }),
        ]
      : []),
  ];
}

/** Twenty clients for a minute at each of three addresses: no error; HEARTH_AGAINST is the address of another build to be measured in turn. */
export async function load(): Promise<number> {
  const seconds = Number(process.env.HEARTH_SECONDS ?? 60);
  const home = passingHome("load");
  process.env.HEARTH_LOG = "error";
  const served = await serve({ home, port: await freePort(), demo: true, ownDatabase: true });
  try {
    // Both are warmed alike, and both begin with the same few entries.
    for (const url of [served.url, process.env.HEARTH_AGAINST ?? ""]) if (url) await loadOf(url, 5, false);
    const here = await loadOf(served.url, seconds);
    const there = process.env.HEARTH_AGAINST ? await loadOf(process.env.HEARTH_AGAINST, seconds) : null;
    let errors = 0;
    for (const [index, load] of here.entries()) {
      errors += load.errors;
      const other = there?.[index];
      console.log(
        `${load.name}: ${load.perSecond.toFixed(1)} a second, 97.5th percentile ${load.p95} ms, ${load.errors} errors${other ? `; the other build ${other.perSecond.toFixed(1)}, ratio ${(load.perSecond / other.perSecond).toFixed(2)}` : ""}`,
      );
    }
    return errors === 0 ? 0 : 1;
  } finally {
    await served.stop();
  }
}
