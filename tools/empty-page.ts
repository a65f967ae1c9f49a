import { type ChildProcess, spawn } from "node:child_process";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { freePort, run, until } from "./processes";
import { ROOT } from "./root";

const FILES = {
  "package.json": '{ "private": true }',
  "next.config.mjs": `export default { typescript: { ignoreBuildErrors: true }, turbopack: { root: ${JSON.stringify(ROOT)} } };`,
  "app/layout.jsx": 'export default ({ children }) => <html lang="en"><body>{children}</body></html>;',
  "app/page.jsx": 'import { Field } from "./field";\n\nexport default () => <Field />;',
  "app/field.jsx":
    '"use client";\nimport { useState } from "react";\n\nexport function Field() {\n  const [text, setText] = useState("");\n  return <label>Empty <input value={text} onChange={(event) => setText(event.target.value)} /> <button type="button" onClick={() => setText("pressed")}>{text || "press"}</button></label>;\n}',
};

/** Builds a page of the same framework with one field and one button, with nothing of this program, and serves it for as long as `use` runs. */
export async function withEmptyPage<T>(use: (url: string) => Promise<T>): Promise<T> {
  // Within the project, where the framework is found.
  const folder = join(ROOT, ".hearth/empty-page");
  rmSync(folder, { recursive: true, force: true });
  let server: ChildProcess | null = null;
  try {
    for (const [name, text] of Object.entries(FILES)) {
      mkdirSync(join(folder, name, ".."), { recursive: true });
      writeFileSync(join(folder, name), text);
    }
    const env = { ...process.env, NODE_ENV: "production" as const, NEXT_TELEMETRY_DISABLED: "1" };
    const next = join(ROOT, "node_modules/next/dist/bin/next");
    const { code, output } = await run(process.execPath, [next, "build", folder], { cwd: ROOT, env });
    if (code !== 0) throw new Error(`The empty page could not be built:\n${output}`);
    const port = await freePort();
    server = spawn(process.execPath, [next, "start", folder, "-H", "127.0.0.1", "-p", String(port)], { cwd: ROOT, env, stdio: "ignore" });
    const url = `http://127.0.0.1:${port}`;
    await until(
      () =>
        fetch(url).then(
          (answer) => answer.ok,
          () => false,
        ),
      30_000,
      "The empty page does not answer.",
    );
    return await use(url);
  } finally {
    server?.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}
