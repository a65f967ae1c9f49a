import { randomUUID } from "node:crypto";
import { rmSync } from "node:fs";
import { chromium, type Page } from "@playwright/test";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { putDemo } from "../demo/load";
import { demoId } from "../demo/workshop";
import { type Database, openDatabase } from "../web/data/client";
import { formulas, formulaVersions } from "../web/data/tables/formula";
import { products } from "../web/data/tables/product";
import { fragrances } from "../web/data/tables/shelf";
import { median } from "./bench-log";
import { passingHome } from "./processes";
import { serve } from "./serve";
import { CHROMIUM, FROZEN } from "./shots";

const [FEW, MANY] = [20, 2_000];
const LISTS = ["/shelf", "/formulas", "/products"];

/** A demo workshop of its own in which there are so many scents, formulas and products. */
async function shed(db: Database, count: number): Promise<string> {
  const id = randomUUID();
  await putDemo(db, { id, name: `Shed of ${count} things` }, new Date(FROZEN));
  const name = (what: string, n: number) => `${what} ${n} ${["moss", "slate", "ember", "quince", "rope"][n % 5]}`;
  const fill = async (there: number, make: (n: number) => Promise<unknown>, step: number) => {
    for (let n = there; n < count; n += step) await make(n);
  };
  const run = <T>(n: number, step: number, of: (n: number) => T): T[] => Array.from({ length: Math.min(step, count - n) }, (_, index) => of(n + index));
  const scents = await db.select({ id: fragrances.id }).from(fragrances).where(eq(fragrances.workshopId, id));
  await fill(
    scents.length,
    (n) =>
      db.insert(fragrances).values(run(n, 500, (at) => ({ workshopId: id, id: v7(), name: name("scent", at), kind: "fragrance" as const, flashPoint: 9_000 }))),
    500,
  );
  const [spec] = await db
    .select({ spec: formulaVersions.spec })
    .from(formulaVersions)
    .where(and(eq(formulaVersions.workshopId, id), eq(formulaVersions.formulaId, demoId(6, 1))));
  const made = await db.select({ id: formulas.id }).from(formulas).where(eq(formulas.workshopId, id));
  await fill(
    made.length,
    async (n) => {
      const rows = run(n, 500, (at) => ({ workshopId: id, id: v7(), name: name("formula", at), updatedAt: FROZEN }));
      await db.insert(formulas).values(rows);
      await db
        .insert(formulaVersions)
        .values(rows.map((row) => ({ workshopId: id, id: v7(), formulaId: row.id, number: 1, spec: spec?.spec ?? {}, createdAt: FROZEN })));
    },
    500,
  );
  const sold = await db.select({ id: products.id }).from(products).where(eq(products.workshopId, id));
  const container = { container: "vessel" as const, containerId: demoId(4, 6), formulaId: demoId(6, 1) };
  await fill(sold.length, (n) => db.insert(products).values(run(n, 500, (at) => ({ workshopId: id, id: v7(), name: name("product", at), ...container }))), 500);
  return id;
}

/** Returns how long the first page of a list takes to come, in ms. */
async function first(url: string, path: string, workshop: string): Promise<number> {
  const began = performance.now();
  const answer = await fetch(`${url}/w/${workshop}${path === "/" ? "" : path}`);
  await answer.text();
  if (!answer.ok) throw new Error(`${path} answered ${answer.status}.`);
  return performance.now() - began;
}

/** From a letter typed into a chooser until what it offers was drawn again, in ms. */
async function typing(page: Page): Promise<number> {
  const field = page.getByRole("combobox", { name: /^Fragrance$/ });
  await field.click();
  // The whole shelf is read the first time that it is looked at.
  await field.fill("moss");
  await page.getByRole("option", { name: /moss/ }).first().waitFor();
  const times: number[] = [];
  for (let turn = 0; turn < 12; turn++) {
    for (const text of ["s", "sc", "sce", "scen", "scent", "scent 1"]) {
      times.push(
        await field.evaluate(async (input: HTMLInputElement, value) => {
          const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
          const began = performance.now();
          set?.call(input, value);
          input.dispatchEvent(new Event("input", { bubbles: true }));
          // What follows from a letter is drawn when its event has been handled: reading the layout waits for it.
          await new Promise((rest) => queueMicrotask(() => rest(null)));
          document.body.getBoundingClientRect();
          return performance.now() - began;
        }, text),
      );
    }
  }
  return median(times.slice(12));
}

/** What a full shelf costs against a small one. */
export async function benchLists(): Promise<void> {
  const home = passingHome("bench");
  const served = await serve({ home, port: 4_860, demo: true, ownDatabase: true });
  const { db, pool } = openDatabase(served.databaseUrl);
  const browser = await chromium.launch(CHROMIUM);
  try {
    const [few, many] = [await shed(db, FEW), await shed(db, MANY)];
    await pool.query("analyze");
    for (const path of LISTS) {
      const times: [number[], number[]] = [[], []];
      for (let i = 0; i < 40; i++)
        for (const [index, workshop] of [few, many].entries()) {
          const ms = await first(served.url, path, workshop);
          if (i >= 10) times[index]?.push(ms);
        }
      const [small, large] = [median(times[0]), median(times[1])];
      console.log(
        `first page of ${path.padEnd(24)} ${FEW}: ${small.toFixed(1)} ms, ${MANY}: ${large.toFixed(1)} ms, ratio ${(large / small).toFixed(2)} (at most 1.5)`,
      );
    }
    const typed: number[] = [];
    for (const workshop of [few, many]) {
      const context = await browser.newContext({ baseURL: served.url, serviceWorkers: "block" });
      const page = await context.newPage();
      await page.goto(`/w/${workshop}/formulas/new`);
      await page.locator("html[data-hydrated]").waitFor({ state: "attached" });
      typed.push(await typing(page));
      await context.close();
    }
    const [small = 1, large = 1] = typed;
    console.log(`a letter in a chooser of ${FEW}: ${small.toFixed(1)} ms, of ${MANY}: ${large.toFixed(1)} ms, ratio ${(large / small).toFixed(2)} (at most 2)`);
  } finally {
    await browser.close();
    await pool.end();
    await served.stop();
    rmSync(home, { recursive: true, force: true });
  }
}
