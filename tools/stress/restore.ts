import { join } from "node:path";
import { v7 } from "uuid";
import { demoId, WORKSHOP } from "../../demo/workshop";
import { backup, fingerprint, restore as putBack } from "../backup";
import { withClient } from "../postgres";
import { freePort, passingHome } from "../processes";
import { serve } from "../serve";

const print = (url: string) => withClient(url, fingerprint);

/** A backup taken and put back while the program runs and is written to: to the byte in every table, and the program goes on. */
export async function restore(): Promise<number> {
  const home = passingHome("restore");
  process.env.HEARTH_LOG = "silent";
  const served = await serve({ home, port: await freePort(), demo: true, ownDatabase: true });
  const write = (text: string) =>
    fetch(`${served.url}/api/workshops/${WORKSHOP.id}/batches/${demoId(8, 6)}/events`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ id: v7(), kind: "note", happenedAt: new Date(Date.now() - 1_000).toISOString(), personId: null, payload: { text } }),
    }).then(
      (answer) => answer.status,
      () => 0,
    );
  try {
    for (let i = 0; i < 200; i++) await write(`before ${i}`);
    const before = await print(served.databaseUrl);
    const file = join(home, "trial.dump");
    const began = Date.now();
    const { tables, bytes } = await backup(served.databaseUrl, file);
    const took = Date.now() - began;
    let writing = true;
    const busy = (async () => {
      for (let i = 0; writing; i++) await write(`meanwhile ${i}`);
    })();
    await new Promise((rest) => setTimeout(rest, 500));
    // What is written while it is put back belongs to what was there before, or is refused; so the comparison is made once it is quiet.
    writing = false;
    await busy;
    const restoring = Date.now();
    await putBack(served.databaseUrl, file);
    const back = await print(served.databaseUrl);
    const off = [...new Set([...Object.keys(before), ...Object.keys(back)])].filter((name) => before[name] !== back[name]);
    const status = await write("after");
    console.log(
      `${tables} tables, ${(bytes / 1_024).toFixed(0)} kB; backup with reading back ${took} ms, restore ${Date.now() - restoring} ms; tables that differ: ${off.length}; an entry afterwards: ${status}`,
    );
    return off.length === 0 && status === 200 ? 0 : 1;
  } finally {
    await served.stop();
  }
}
