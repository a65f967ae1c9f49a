import { execFile } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { expect, it } from "vitest";

const ROOT = new URL("..", import.meta.url).pathname;

/** Each line: a file, what it imports, and whether that is forbidden. */
const IMPORTS: readonly [file: string, from: string, isForbidden: boolean][] = [
  ["core/day/one.ts", "drizzle-orm", true],
  ["core/day/one.ts", "node:fs", true],
  ["core/day/one.ts", "../../web/ui/units", true],
  ["core/day/one.ts", "zod", false],
  ["core/day/one.ts", "../heat/range", false],
  ["core/day/one.test.ts", "fast-check", false],
  ["web/data/one.ts", "@/server/http/change-stream", true],
  ["web/data/one.ts", "../ui/units", true],
  ["web/data/one.ts", "@hearth/core", false],
  ["web/server/one.ts", "@/features/sell/pack", true],
  ["web/server/auth/one.ts", "../../log/store", true],
  ["web/server/auth/one.ts", "@/data/client", false],
  ["web/ui/one.tsx", "@/data/client", true],
  ["web/ui/one.tsx", "@hearth/core/day/day", true],
  ["web/log/one.ts", "@/catalogue/find", true],
  ["web/forms/one.ts", "@/server/planning/planning", true],
  ["web/catalogue/one.tsx", "@/data/client", true],
  ["web/workers/one.ts", "@/ui/units", true],
  ["web/features/sell/one.tsx", "../plan/fill", true],
  ["web/features/sell/one.tsx", "@/features/plan/fill", true],
  ["web/features/sell/one.tsx", "@/data/client", true],
  ["web/features/sell/one.tsx", "@/app/page", true],
  ["web/server/sales/commands.ts", "@/data/client", false],
  ["web/server/sales/commands.ts", "@/features/plan/fill", true],
  ["web/features/bench/parts/one.tsx", "../../sell/pack", true],
  ["web/features/bench/parts/one.tsx", "../alarm", false],
  ["web/app/one.tsx", "../../core/day/day", true],
  ["web/app/one.tsx", "@/features/sell/pack", false],
  ["web/app/one.tsx", "../../demo/load", true],
  ["tools/one.ts", "../core/index", true],
];

it("imports that lead up, across or in a circle are refused, and others are not", async () => {
  const folder = mkdtempSync(join(tmpdir(), "imports-"));
  try {
    const put = (file: string, text: string) => {
      mkdirSync(dirname(join(folder, file)), { recursive: true });
      writeFileSync(join(folder, file), text);
    };
    const config = JSON.parse(readFileSync(join(ROOT, "biome.json"), "utf8"));
    put("biome.json", JSON.stringify({ ...config, $schema: undefined, vcs: { enabled: false } }));
    const named = IMPORTS.map(([file, from, isForbidden], index) => ({
      file: file.replace(/one(?=\.)/, `one${index}`).replace("/commands.ts", `/x${index}-commands.ts`),
      from,
      isForbidden,
    }));
    for (const { file, from } of named) put(file, `import { x } from "${from}";\n\nexport const y = x;\n`);
    put("core/heat/a.ts", 'import type { B } from "./b";\n\nexport type A = B | 1;\n');
    put("core/heat/b.ts", 'import type { A } from "./a";\n\nexport type B = A | 2;\n');
    const output = await new Promise<string>((done) => {
      const biome = join(ROOT, "node_modules/.bin/biome");
      execFile(biome, ["lint", "--reporter=github", "--max-diagnostics=none", "."], { cwd: folder, maxBuffer: 16e6 }, (_error, out) => done(out));
    });
    const refused = (rule: string) =>
      output.split("\n").flatMap((line) => (line.includes(rule) ? [/file=([^,]+)/.exec(line)?.[1]?.replace(`${folder}/`, "")] : []));
    expect(refused("noRestrictedImports").sort()).toEqual(
      named
        .filter((item) => item.isForbidden)
        .map((item) => item.file)
        .sort(),
    );
    expect(refused("noImportCycles").sort()).toEqual(["core/heat/a.ts", "core/heat/b.ts"]);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
