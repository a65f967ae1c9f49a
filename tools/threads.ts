import { build } from "esbuild";
import { ROOT } from "./root";

const file = (path: string) => `${ROOT}web/serve/${path}`;

/** Builds what is worked out in threads of the server's own, each as a file in `folder`. */
export async function buildThreads(folder: string): Promise<void> {
  await build({
    entryPoints: { schedule: file("schedule.ts"), paper: file("paper.ts"), forecast: file("forecast.ts") },
    outdir: folder,
    outExtension: { ".js": ".cjs" },
    bundle: true,
    packages: "external",
    alias: { "@hearth/core": `${ROOT}core/index.ts` },
    platform: "node",
    format: "cjs",
    target: "node20",
  });
}
