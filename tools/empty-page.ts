import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { run } from "./processes";

const ROOT = new URL("..", import.meta.url).pathname;

const FILES = {
  "package.json": '{ "private": true }',
  "next.config.mjs": `export default { typescript: { ignoreBuildErrors: true }, turbopack: { root: ${JSON.stringify(ROOT)} } };`,
  "app/layout.jsx": 'export default ({ children }) => <html lang="en"><body>{children}</body></html>;',
  "app/page.jsx": "export default () => <p>Empty.</p>;",
};

/** What an empty page of the same framework loads: one is built, with nothing of this program, and the scripts that its page names are weighed, gzipped, in bytes. */
export async function emptyPage(): Promise<number> {
  // Within the project, where the framework is found.
  const place = join(ROOT, ".hearth/empty-page");
  rmSync(place, { recursive: true, force: true });
  try {
    for (const [name, text] of Object.entries(FILES)) {
      mkdirSync(join(place, name, ".."), { recursive: true });
      writeFileSync(join(place, name), text);
    }
    const { code, output } = await run("npx", ["next", "build", place], {
      cwd: ROOT,
      env: { ...process.env, NODE_ENV: "production", NEXT_TELEMETRY_DISABLED: "1" },
    });
    if (code !== 0) throw new Error(`The empty page could not be built:\n${output}`);
    const html = readFileSync(join(place, ".next/server/app/index.html"), "utf8");
    // What old browsers alone load is not counted here, as it is not where the pages are looked at.
    const named = [...html.matchAll(/<script[^>]*src="\/_next\/(static\/[^"]+\.js)"[^>]*>/g)]
      .filter(([tag]) => !/nomodule/i.test(tag))
      .map(([, file]) => file as string);
    return [...new Set(named)].reduce((sum, file) => sum + gzipSync(readFileSync(join(place, ".next", file))).length, 0);
  } finally {
    rmSync(place, { recursive: true, force: true });
  }
}
