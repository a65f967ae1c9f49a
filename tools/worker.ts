import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { build } from "esbuild";
import { ROOT } from "./root";
import { buildThreads } from "./threads";

const NEXT = `${ROOT}web/.next/`;

/** The files that pages ask for, under the addresses they have; their names change with what is in them. */
function builtFiles(folder: string): string[] {
  return readdirSync(join(NEXT, folder), { withFileTypes: true }).flatMap((dirent) => {
    const path = `${folder}/${dirent.name}`;
    return dirent.isDirectory() ? builtFiles(path) : dirent.name.endsWith(".map") ? [] : [path];
  });
}

const files = builtFiles("static").map((path) => ({
  url: `/_next/${path}`,
  revision: createHash("sha256")
    .update(readFileSync(join(NEXT, path)))
    .digest("hex")
    .slice(0, 16),
}));
await build({
  entryPoints: [`${ROOT}web/offline/worker.ts`],
  outfile: join(NEXT, "worker.js"),
  bundle: true,
  minify: true,
  format: "iife",
  target: "es2022",
  define: { BUILD_FILES: JSON.stringify(files), "process.env.NODE_ENV": '"production"' },
});

// The web server itself: reading it from its sources would take a start longer than all else that the start does.
await build({
  entryPoints: { main: `${ROOT}web/serve/main.ts` },
  outdir: NEXT,
  outExtension: { ".js": ".mjs" },
  chunkNames: "main-[hash]",
  splitting: true,
  bundle: true,
  packages: "external",
  alias: { "@hearth/core": `${ROOT}core/index.ts` },
  platform: "node",
  format: "esm",
  target: "node20",
});

await buildThreads(NEXT);
