import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { run } from "./processes";
import { ROOT } from "./root";

function fingerprint(): string {
  const hash = createHash("sha256");
  const walk = (folder: string) => {
    for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      const path = join(folder, entry.name);
      if (entry.isDirectory()) {
        if (!["node_modules", ".next"].includes(entry.name)) walk(path);
      } else if (!/\.test\.tsx?$|next-env|tsbuildinfo/.test(entry.name)) hash.update(path.slice(ROOT.length)).update(readFileSync(path));
    }
  };
  walk(join(ROOT, "core"));
  walk(join(ROOT, "web"));
  hash.update(readFileSync(join(ROOT, "tools/worker.ts")));
  return hash.update(readFileSync(join(ROOT, "package-lock.json"))).digest("hex");
}

/** Makes the production build, unless the one at hand was made from these very sources. */
export async function ensureBuild(): Promise<void> {
  const stamp = join(ROOT, "web/.next/hearth-stamp");
  const want = fingerprint();
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === want) return;
  console.log("Building the program: about a minute, once; later starts take seconds");
  // One builder at a time; who waited for another finds its build made, and does not make it again under its feet.
  const build = 'test "$(cat "$STAMP" 2>/dev/null)" = "$WANT" || { npx next build web && node .hearth/tools/worker.mjs && printf %s "$WANT" >"$STAMP"; }';
  const { code, output } = await run("flock", [join(ROOT, ".hearth/build.lock"), "bash", "-c", build], {
    cwd: ROOT,
    env: { ...process.env, NODE_ENV: "production", STAMP: stamp, WANT: want },
  });
  if (code !== 0) throw new Error(`The build failed:\n${output}`);
}
