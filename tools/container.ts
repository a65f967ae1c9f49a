import { createHash } from "node:crypto";
import { mkdirSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { run } from "./processes";
import { ROOT } from "./root";

/** What is left where it is when the sources are copied anew: packages and builds, which know themselves whether they are current. */
const KEPT = ["node_modules", ".hearth", "web"];

/** Returns the lines of the Containerfile that begin with an instruction, without it. */
export const containerLines = (instruction: "RUN" | "CMD"): string[] =>
  readFileSync(join(ROOT, "Containerfile"), "utf8")
    .split("\n")
    .flatMap((line) => (line.startsWith(`${instruction} `) ? [line.slice(instruction.length + 1)] : []));

/**
 * Copies the sources to a folder outside the checkout, runs there the steps by which the Containerfile builds the program, and returns the folder. It is the
 * same folder each time for one checkout, so that only what changed is built again. Throws with the output of a step that fails.
 */
export async function buildAsContainer(): Promise<string> {
  const folder = join(tmpdir(), `hearth-program-${createHash("sha256").update(ROOT).digest("hex").slice(0, 12)}`);
  mkdirSync(folder, { recursive: true });
  for (const name of readdirSync(folder)) if (!KEPT.includes(name)) rmSync(join(folder, name), { recursive: true });
  const web = join(folder, "web");
  mkdirSync(web, { recursive: true });
  for (const name of readdirSync(web)) if (name !== ".next" && name !== "node_modules") rmSync(join(web, name), { recursive: true });
  const copy = `git ls-files -co --exclude-standard -z | while IFS= read -r -d "" file; do [ -e "$file" ] && printf "%s\\0" "$file"; done | xargs -0 cp --parents -t "$TO"`;
  for (const [step, cwd] of [[copy, ROOT], ...containerLines("RUN").map((line) => [line, folder])] as [string, string][]) {
    if (step.includes("apt-get")) continue;
    const { code, output } = await run("bash", ["-ec", step], { cwd, env: { ...process.env, NODE_ENV: "production", TO: folder } });
    if (code !== 0) throw new Error(`Building as the Containerfile does failed at “${step}”:\n${output}`);
  }
  return folder;
}
