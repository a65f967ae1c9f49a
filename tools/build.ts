import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { run } from "./processes";

const ROOT = new URL("..", import.meta.url).pathname;

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
  return hash.update(readFileSync(join(ROOT, "package-lock.json"))).digest("hex");
}

/** Makes the production build, unless the one at hand was made from these very sources. */
export async function ensureBuild(): Promise<void> {
  const stamp = join(ROOT, "web/.next/hearth-stamp");
  const want = fingerprint();
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === want) return;
  console.log("Building (once; later starts take seconds)");
  // One builder at a time, also where two demos are started together.
  const { code, output } = await run("flock", [join(ROOT, ".hearth/build.lock"), "npx", "next", "build", "web"], {
    cwd: ROOT,
    env: { ...process.env, NODE_ENV: "production" },
  });
  if (code !== 0) throw new Error(`The build failed:\n${output}`);
  writeFileSync(stamp, want);
}
