import { request } from "node:http";
import { gunzipSync } from "node:zlib";
import { STOCKED } from "@hearth/core";
import { WORKSHOP } from "../demo/workshop";
import { OPENED_WITH, routes } from "./routes";
import { damageStarts, expect, test } from "./support";

const KINDS = ["wax", "fragrance", "dye", "additive", "wick", "vessel", "mold", "pack", "instrument"];
/** Of each kind of thing so many are opened, spread over all that there are, and papers and files are drawn of so many. */
const MAX_OPENED = 20;
const MAX_EXPORTED = 8;
/** Papers and files of things, by their table. */
const EXPORTS: Record<string, string[]> = {
  batch: ["batches/ID/record", "batches/ID/record?as=csv", "batches/ID/sheet", "batches/ID/sheet?what=tags", "batches/ID/log?after=0"],
  trial: ["trials/ID/record", "trials/ID/record?as=csv", "trials/ID/log?after=0"],
  sale_order: ["orders/ID/log?after=0", "sales?order=ID"],
  formula: ["formulas/ID"],
  product: ["labels?product=ID&sheet=a4-2x4", "labels?product=ID&as=svg&sheet=a4-2x4", "buyers?product=ID"],
};

/** The ids of all that a workshop has, by table. */
async function idsOf(workshop: string): Promise<Map<string, string[]>> {
  const exported = await fetch(`${process.env.HEARTH_URL}/api/workshops/${workshop}/whole`);
  const whole = gunzipSync(Buffer.from(await exported.arrayBuffer()))
    .toString("utf8")
    .trim()
    .split("\n")
    .slice(1, -1);
  const ids = new Map<string, string[]>();
  for (const line of whole) {
    const { table, row } = JSON.parse(line) as { table: string; row: { id?: string } };
    if (row.id) ids.set(table, [...(ids.get(table) ?? []), row.id]);
  }
  return ids;
}

/** At most so many of a list, at even distances. */
const spread = <T>(all: readonly T[], most: number): T[] => all.filter((_, index) => index % Math.ceil(all.length / most) === 0);

/** Every page of a workshop, and papers and files of each sort. */
function addressesIn(workshop: string, ids: ReadonlyMap<string, string[]>): string[] {
  const at = `${process.env.HEARTH_URL}/w/${workshop}`;
  const api = `${process.env.HEARTH_URL}/api/workshops/${workshop}`;
  const addresses: string[] = [];
  for (const route of routes()) {
    const table = OPENED_WITH[route];
    if (!route.includes("[")) addresses.push(at + route.replace(/\/$/, ""));
    else if (table === "shelf")
      for (const kind of STOCKED) for (const id of spread(ids.get(kind) ?? [], MAX_OPENED)) addresses.push(`${at}/shelf/${kind}/${id}`);
    else if (table) for (const id of spread(ids.get(table) ?? [], MAX_OPENED)) addresses.push(at + route.replace("[id]", id));
    else throw new Error(`Say with what ${route} is opened.`);
  }
  for (const [table, paths] of Object.entries(EXPORTS))
    for (const id of spread(ids.get(table) ?? [], MAX_EXPORTED)) for (const path of paths) addresses.push(`${api}/${path.replace("ID", id)}`);
  for (const kind of [...KINDS, "lot", "product", "wanted"]) addresses.push(`${api}/shelf/${kind}`);
  addresses.push(`${api}/sales`, `${api}/batches`, `${api}/catalogue`, `${process.env.HEARTH_URL}/favicon.ico`);
  return addresses;
}

/** Those of the addresses that do not answer 200. */
async function failing(addresses: readonly string[]): Promise<string[]> {
  const bad: string[] = [];
  const next = addresses[Symbol.iterator]();
  const worker = async () => {
    for (const address of next) {
      const answer = await fetch(address, { redirect: "manual" });
      await answer.arrayBuffer();
      if (answer.status !== 200) bad.push(`${answer.status} ${address}`);
    }
  };
  await Promise.all([worker(), worker(), worker()]);
  return bad;
}

test("every page of the demo opens, and every sort of paper and file", async () => {
  // The demo itself, with all that lies behind it, and not a copy for this test.
  const ids = await idsOf(WORKSHOP.id);
  for (const table of ["batch", "trial", "sale_order", "formula", "product"]) expect(ids.get(table)?.length, table).toBeGreaterThan(0);
  expect(ids.get("batch")?.length).toBeGreaterThan(50);
  const addresses = addressesIn(WORKSHOP.id, ids);
  expect(await failing(addresses)).toEqual([]);
  expect(addresses.length).toBeGreaterThan(300);
});

test("a batch whose start cannot be read opens all the same, is listed, and says so", async ({ page, workshop }) => {
  const damaged = await damageStarts(workshop);
  const ids = await idsOf(workshop);
  const some = new Map([...ids].map(([table, all]) => [table, table === "batch" ? damaged : all.slice(0, 1)]));
  expect(some.get("batch")).toHaveLength(3);
  expect(await failing(addressesIn(workshop, some))).toEqual([]);
  await page.goto(`/w/${workshop}/records/${damaged[0]}`);
  await expect(page.getByText(/An entry that cannot be read \(started\)/).first()).toBeVisible();
});

/** Asks with a request line of one's own, which a browser would not send. */
const ask = (method: string, path: string, headers: Record<string, string> = {}) =>
  new Promise<number>((done, failed) => {
    const { hostname, port } = new URL(process.env.HEARTH_URL ?? "");
    const sent = request({ host: hostname, port, method, path, headers }, (answer) => {
      answer.resume();
      answer.once("end", () => done(answer.statusCode ?? 0));
    });
    sent.on("error", failed);
    sent.end();
  });

test("an address that leads nowhere, and a request that is none, are told so at once", async ({ page, workshop }) => {
  const inside = `/w/${workshop}`;
  for (const path of [`${inside}/nothing`, `${inside}/people%20`, `${inside}/rack/nothing/more`, "/nothing", "/wp-login.php"])
    expect(await ask("GET", path), path).toBe(404);
  for (const path of ["/api/nothing", `/api/workshops/${workshop}/nothing`])
    for (const method of ["GET", "POST", "DELETE"]) expect(await ask(method, path), path).toBe(404);
  for (const method of ["GET", "DELETE"]) expect(await ask(method, "/api/workshops"), method).toBe(405);
  for (const method of ["PUT", "DELETE", "PATCH"]) expect(await ask(method, `${inside}/bench`), method).toBe(405);
  expect(await ask("POST", `${inside}/bench`)).toBe(405);
  expect(await ask("TRACE", inside)).toBe(405);
  expect(await ask("OPTIONS", "*")).toBe(400);
  expect(await ask("GET", "http://elsewhere.example/w")).toBe(400);
  for (const path of ["sales?from=0000-01-01", "sales?to=9999-01-01"]) expect(await ask("GET", `/api/workshops/${workshop}/${path}`), path).toBe(400);
  expect(await ask("GET", `/api/workshops/${workshop}/days/0000-01-01/sheet`)).toBe(404);
  expect(await ask("GET", `${inside}/rack`, { cookie: "hearth_device=%" })).toBe(200);
  await page.goto(`${inside}/nothing`);
  await expect(page.getByRole("heading", { name: "Page not found" })).toBeVisible();
  // An address of a version that had one workshop still leads on.
  await page.goto("/rack");
  await expect(page).toHaveURL(`${inside}/rack`);
});

test("the log of a workshop with a clock of twelve hours keeps its hours", async ({ page, workshop }) => {
  await page.goto(`/w/${workshop}/records`);
  const first = page.getByRole("link", { name: /^(Open|View|Batch|\d+)/ }).first();
  await first.click();
  const times = page.locator("ol time");
  await expect(times.first()).toBeVisible();
  const clock = await page.evaluate(() => document.querySelector("ol time")?.textContent ?? "");
  expect(clock).toMatch(/^\d{1,2}:\d\d( [ap]m)? /);
});
