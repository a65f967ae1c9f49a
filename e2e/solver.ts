import { readFileSync } from "node:fs";
import type { ScheduleRequest } from "@hearth/core";
import type { Page } from "@playwright/test";

const PACKAGE = new URL("../node_modules/minizinc/dist/", import.meta.url).pathname;
const SITE = "http://solver.invalid";

/** The same wish for a constraint solver, written straight from the request: starts, waits, and what each resource has to give. */
export function constraintsOf(request: ScheduleRequest, horizon: number): string {
  const lines = ['include "globals.mzn";'];
  const at = new Map<string, number>();
  for (const job of request.jobs) for (const step of job.steps) at.set(`${job.id}/${step.id}`, at.size + 1);
  lines.push(`array[1..${at.size}] of var 0..${horizon}: s;`, `var 0..${horizon}: end;`);
  const uses = new Map<string, { from: string; minutes: string; q: number }[]>();
  for (const job of request.jobs)
    for (const [k, step] of job.steps.entries()) {
      const mine = `s[${at.get(`${job.id}/${step.id}`)}]`;
      const next = job.steps[k + 1];
      const then = next && `s[${at.get(`${job.id}/${next.id}`)}]`;
      if (k === 0) lines.push(`constraint ${mine} >= ${job.release};`);
      if (step.at != null) lines.push(`constraint ${mine} = ${step.at};`);
      if (then) {
        lines.push(`constraint ${then} >= ${mine} + ${step.minutes + step.wait.min};`);
        if (step.wait.max != null) lines.push(`constraint ${then} <= ${mine} + ${step.minutes + step.wait.max};`);
      } else lines.push(`constraint end >= ${mine} + ${step.minutes};`);
      for (const resource of new Set([...Object.keys(step.needs), ...(then ? step.keeps : [])])) {
        const needs = step.needs[resource] ?? 0;
        const keeps = then !== undefined && step.keeps.includes(resource);
        const from = needs > 0 ? mine : `${mine} + ${step.minutes}`;
        if (needs === 0 && !keeps) continue;
        let minutes = String(step.minutes);
        if (keeps) {
          minutes = `d${lines.length}`;
          lines.push(`var 0..${horizon}: ${minutes};`, `constraint ${minutes} = ${then} - (${from});`);
        }
        uses.set(resource, [...(uses.get(resource) ?? []), { from, minutes, q: Math.max(1, needs) }]);
      }
    }
  for (const [resource, all] of uses) {
    const list = (of: (item: (typeof all)[number]) => string | number) => `[${all.map(of).join(",")}]`;
    lines.push(
      `constraint cumulative(${list((item) => item.from)}, ${list((item) => item.minutes)}, ${list((item) => item.q)}, ${request.resources[resource] ?? 0});`,
    );
  }
  lines.push("solve minimize end;", 'output ["\\(end)"];');
  return lines.join("\n");
}

/** What Chuffed finds in so many seconds, in a page: when each better value came, and whether it proved the last. */
export async function chuffed(page: Page, model: string, seconds: number): Promise<{ ways: { ms: number; value: number }[]; proved: boolean }> {
  await page.route(`${SITE}/**`, (route) => {
    const name = new URL(route.request().url()).pathname.slice(1);
    if (name === "") return route.fulfill({ contentType: "text/html", body: "<!doctype html><title>solver</title>" });
    const contentType = name.endsWith(".wasm") ? "application/wasm" : name.endsWith(".data") ? "application/octet-stream" : "text/javascript";
    return route.fulfill({ contentType, body: readFileSync(PACKAGE + name) });
  });
  await page.goto(`${SITE}/`);
  return await page.evaluate(
    async ({ text, limit, site }) => {
      const solver = (await import(/* @vite-ignore */ `${site}/minizinc.mjs`)) as {
        init(urls: object): Promise<void>;
        Model: new () => {
          addString(text: string): void;
          solve(how: object): { on(event: string, hear: (told: { output: { default: string } }) => void): void; then: Promise<{ status: string }>["then"] };
        };
      };
      await solver.init({ workerURL: `${site}/minizinc-worker.js`, wasmURL: `${site}/minizinc.wasm`, dataURL: `${site}/minizinc.data` });
      const item = new solver.Model();
      item.addString(text);
      const begin = performance.now();
      const ways: { ms: number; value: number }[] = [];
      const solving = item.solve({ options: { solver: "chuffed", "time-limit": limit * 1_000, "free-search": true, "all-solutions": true } });
      solving.on("solution", ({ output }) => ways.push({ ms: performance.now() - begin, value: Number(output.default.trim()) }));
      try {
        const { status } = await solving;
        return { ways, proved: status === "OPTIMAL_SOLUTION" };
      } catch (error) {
        // What the solver says is an object of its own.
        throw new Error(JSON.stringify(error));
      }
    },
    { text: model, limit: seconds, site: SITE },
  );
}
