import { readFile } from "node:fs/promises";

/** The service worker of this build; it is made after the build, since it names its files. */
export async function GET(): Promise<Response> {
  const script = await readFile(process.env.HEARTH_WORKER ?? "", "utf8").catch(() => null);
  if (script === null) return new Response("There is no service worker in this build.", { status: 404 });
  return new Response(script, { headers: { "content-type": "text/javascript; charset=utf-8", "cache-control": "no-cache" } });
}
