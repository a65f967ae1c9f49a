import { build } from "esbuild";

const file = (path: string) => new URL(`../web/serve/${path}`, import.meta.url).pathname;

/** Builds what is worked out in threads of the server's own, each as a file in `folder`. */
export async function buildThreads(folder: string): Promise<void> {
  await build({
    entryPoints: { schedule: file("schedule.ts"), paper: file("paper.ts") },
    outdir: folder,
    outExtension: { ".js": ".cjs" },
    bundle: true,
    packages: "external",
    alias: { "@hearth/core": new URL("../core/index.ts", import.meta.url).pathname },
    platform: "node",
    format: "cjs",
    target: "node20",
  });
}
