import { writeFileSync } from "node:fs";
import { demoId } from "../demo/workshop";
import program from "../package.json" with { type: "json" };
import { ALONE, addressOf, choose, database, emptyWorkshop, expect, open, spoilBatches, test } from "./support";

test("two windows on one formula: the later save is told what changed, and loses nothing typed", async ({ page, context }) => {
  await open(page, `/formulas/${demoId(6, 2)}`);
  const other = await context.newPage();
  await open(other, `/formulas/${demoId(6, 2)}`);
  await other.getByLabel("Pour at").fill("70–75");
  await other.getByRole("button", { name: "Save the formula" }).click();
  await expect(other.getByText(/Saved as version 2: the one before has been used/)).toBeVisible();

  // The first window hears of it, and still says later what changed since its form was begun.
  await expect(page.getByText(/^Version 2/)).toBeVisible();
  await page.getByRole("textbox", { name: "Notes" }).fill("Mine, typed in the meantime");
  await page.getByLabel("Load").fill("7,5");
  await page.getByLabel("Stir for").fill("3 min");
  await page.getByRole("button", { name: "Save the formula" }).click();
  const told = page.getByRole("alert").filter({ hasText: "saved a newer version" });
  await expect(told).toContainText("Ansa");
  await expect(told).toContainText("pour range: 71–77 °C → 70–75 °C");
  await expect(page.getByRole("textbox", { name: "Notes" })).toHaveValue("Mine, typed in the meantime");
  await expect(page.getByLabel("Load")).toHaveValue("7,5");
  await told.getByRole("button", { name: "Overwrite with mine" }).click();
  await expect(page.getByText("Saved, version 2.")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Load")).toHaveValue("7.5");
  await expect(page.getByText(/things changed at once/)).toBeVisible();
});

test("bad input is told at its field, and nothing typed is lost", async ({ page }) => {
  await open(page, "/formulas/new");
  const load = page.getByLabel("Load");
  await choose(page, /^Wax$/, "coconut blend");
  for (const [typed, told] of [
    ["-3", "cannot be a load"],
    ["NaN", "is not a percentage"],
    ["ten", "is not a percentage"],
    ["1000", "cannot be a load"],
    ["", "Fill in “Load”."],
  ] as const) {
    await load.fill(typed);
    await page.getByRole("button", { name: "Save the formula" }).click();
    await expect(page.getByRole("alert").filter({ hasText: told })).toBeVisible();
    await expect(load).toHaveValue(typed);
  }
  await load.fill("12,5");
  await expect(page.getByText("12.5 % of the wax = 11.11 % of the total")).toBeVisible();
  await expect(page.getByText(/12.5 % of the wax is above the 12 % that coconut blend takes/)).toBeVisible();
  await page.getByLabel("Heat to").fill("850");
  await page.getByLabel("Name", { exact: true }).fill("Bad");
  await page.getByRole("button", { name: "Save the formula" }).click();
  await expect(page.getByText(/850 °C is hotter than any wax/)).toBeVisible();

  await open(page, `/plan?formula=${demoId(6, 1)}`);
  await page.getByRole("button", { name: "Start the batch" }).click();
  await expect(page.getByText("Enter how many of at least one vessel.")).toBeVisible();
  const counts = page.getByLabel("Count");
  await counts.first().fill("1.5");
  await page.getByRole("button", { name: "Start the batch" }).click();
  await expect(page.getByText("1.5 is not a whole number of jars.")).toBeVisible();
  await counts.first().fill("0");
  await page.getByRole("button", { name: "Start the batch" }).click();
  await expect(page.getByText("Enter how many of at least one vessel.")).toBeVisible();
  await expect(page).toHaveURL(/\/plan/);
});

test("while the database is away health says so, a form keeps its contents, and a reading waits on the device", ALONE, async ({ page, request }) => {
  await open(page, "/formulas/new");
  await page.getByLabel("Name", { exact: true }).fill("Typed while away");
  await page.getByRole("textbox", { name: "Notes" }).fill("A long thought");
  const bench = await page.context().newPage();
  await open(bench, `/bench/${demoId(8, 6)}`);
  await expect(bench.getByRole("heading", { name: "Heat the wax" })).toBeVisible();
  expect(await (await request.get("/api/health")).json()).toMatchObject({ ok: true, database: "up", version: program.version });

  let away = page;
  await database("stop");
  try {
    const health = await request.get("/api/health");
    expect(health.status()).toBe(503);
    expect(await health.json()).toMatchObject({ ok: false });
    await page.getByRole("button", { name: "Save the formula" }).click();
    await expect(page.getByText(/database is not available|Cannot reach/)).toBeVisible();
    await expect(page.getByRole("textbox", { name: "Notes" })).toHaveValue("A long thought");
    await bench.getByLabel("Thermometer shows").fill("85");
    await bench.keyboard.press("Enter");
    await expect(bench.getByText("1 entry is kept on this device")).toBeVisible();
    // It counts on this device already.
    await expect(bench.getByRole("heading", { name: "Add the fragrance" })).toBeVisible();
    const third = await page.context().newPage();
    await third.goto(await addressOf(third, "/rack"));
    await expect(third.getByRole("heading", { name: "This page is not available" })).toBeVisible();
    away = third;
  } finally {
    await database("start");
  }
  await expect(bench.getByText("1 entry is kept on this device")).toBeHidden();
  // A page that could not be read comes back by itself.
  await expect(away.getByRole("heading", { name: "Rack" })).toBeVisible();
  await bench.reload();
  await expect(bench.getByText("heat reading, long probe").first()).toBeVisible();
  await expect(bench.getByText("heat reading, long probe")).toHaveCount(1);
  await page.getByRole("button", { name: "Save the formula" }).click();
  await expect(page.getByRole("heading", { name: "Typed while away" })).toBeVisible();
});

test("files that are no record are refused with the reason, and nothing is half-written", async ({ page }, info) => {
  await emptyWorkshop(page, "For broken files");
  await open(page, "/records/import");
  const input = page.getByLabel("A record, as JSON");
  const offer = async (name: string, content: string | Buffer) => {
    const path = info.outputPath(name);
    writeFileSync(path, content);
    await input.setInputFiles(path);
    await page.getByRole("button", { name: "Import record" }).click();
  };
  await page.getByRole("button", { name: "Import record" }).click();
  await expect(page.getByText("Choose the file first.")).toBeVisible();
  await offer("cut.json", '{"format":"hearth-jar/batch-record","version":1,"batch":{"id":"01');
  await expect(page.getByText("This file is incomplete")).toBeVisible();
  await offer("foreign.json", '{"recipe":"soup"}');
  await expect(page.getByText("not a Hearth Jar batch record")).toBeVisible();
  await offer("picture.json", Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 3]));
  await expect(page.getByText("This file is not JSON")).toBeVisible();
  await offer("huge.json", Buffer.alloc(50 * 1_024 * 1_024, 32));
  await expect(page.getByText("50 MB, and no batch record is larger than 8 MB")).toBeVisible();
  await open(page, "/records");
  await expect(page.getByRole("heading", { name: "No record closed yet" })).toBeVisible();
  await open(page, "/formulas");
  await expect(page.getByRole("heading", { name: "No formula yet" })).toBeVisible();
});

test("the server refuses a body that is too large, other hosts, and writes from other sites", async ({ request, baseURL, workshop }) => {
  const huge = await request.post(`/api/workshops/${workshop}/import`, { data: Buffer.alloc(50 * 1_024 * 1_024, 32) });
  expect(huge.status()).toBe(413);
  expect((await request.get("/api/health", { headers: { host: "shed.example" } })).status()).toBe(403);
  expect((await request.post("/api/v1/scale", { headers: { origin: "https://elsewhere.example" }, data: {} })).status()).toBe(403);
  expect((await request.post("/api/v1/scale", { headers: { origin: baseURL ?? "" }, data: {} })).status()).toBe(400);
});

test("each page says what it may load, runs nothing else, and is framed nowhere", async ({ page, request }) => {
  const violations: string[] = [];
  page.on("console", (said) => {
    if (/Content Security Policy|Refused to/.test(said.text())) violations.push(said.text());
  });
  const nonces = new Set<string>();
  for (const path of ["/", "/bench", `/bench/${demoId(8, 6)}`, "/plan", "/plan/fill", "/records", "/workshops"]) {
    const answer = await page.goto(await addressOf(page, path));
    const headers = answer?.headers() ?? {};
    expect(headers["x-content-type-options"]).toBe("nosniff");
    expect(headers["x-frame-options"]).toBe("DENY");
    expect(headers["referrer-policy"]).toBe("same-origin");
    expect(headers["x-powered-by"]).toBeUndefined();
    const policy = headers["content-security-policy"] ?? "";
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).toContain("object-src 'none'");
    expect(policy).not.toMatch(/script-src[^;]*'unsafe-(inline|eval)'/);
    nonces.add(/'nonce-([^']+)'/.exec(policy)?.[1] ?? "");
    await page.locator("html[data-hydrated]").waitFor({ state: "attached" });
  }
  expect(nonces.size).toBe(7);
  expect(violations).toEqual([]);
  // A script that somebody slips in does not run.
  await page.evaluate(() => {
    const script = document.createElement("script");
    script.textContent = "document.title = 'slipped in'";
    document.body.append(script);
  });
  expect(await page.title()).not.toBe("slipped in");
  const cookies = await request.get("/");
  expect(cookies.headers()["set-cookie"] ?? "").not.toMatch(/hearth_(?!.*HttpOnly)/);
});

test("addresses and queries that cannot be meant are refused with 400, and never break the server", async ({ request, workshop }) => {
  const log = `/api/workshops/${workshop}/batches/${demoId(8, 6)}/log`;
  for (const path of [
    "/rack?after=x",
    "/bench?after=1&after=2",
    `/records?after=2026-13-45T99:99:99.000Z_${workshop}`,
    `${log}?after=soon`,
    `${log}?after=1&after=2`,
    "/shelf?x=%00",
    "/bench/%E0%A4%A",
    "/%00",
  ])
    expect((await request.get(path)).status(), path).toBe(400);
  expect((await request.get(`/rack?after=2026-03-14T14:20:00.000Z_${workshop}`)).status()).toBe(200);
  for (const origin of ["not an origin", "http://", "://x"])
    expect((await request.post("/api/v1/scale", { headers: { origin }, data: {} })).status(), origin).toBe(400);
  expect((await request.post("/api/v1/scale", { headers: { origin: "null" }, data: {} })).status()).toBe(403);
  const deep = await request.post("/api/v1/scale", { headers: { "content-type": "application/json" }, data: Buffer.from("[".repeat(500_000)) });
  expect(deep.status()).toBe(400);
  const odd = await request.post(`/api/workshops/${workshop}/batches/${demoId(8, 6)}/events`, {
    data: { id: "0190c0de-ffff-7000-8000-000000000009", kind: "note", happenedAt: "2026-03-14T14:20:00Z", personId: null, payload: { text: "nul\u0000" } },
  });
  expect(odd.status()).toBe(400);
  expect(((await odd.json()) as { error: { message: string } }).error.message).toContain("payload.text");
});

test("a page that goes on failing says so after one more try, and does not load itself again and again", async ({ page, workshop }) => {
  await spoilBatches(workshop);
  let loads = 0;
  page.on("request", (request) => {
    if (request.isNavigationRequest()) loads += 1;
  });
  await page.goto(await addressOf(page, `/bench/${demoId(8, 6)}`));
  await expect(page.getByRole("heading", { name: "Something went wrong" })).toBeVisible();
  expect(loads).toBe(2);
  await page.getByRole("link", { name: "Go to today" }).click();
  await expect(page).toHaveURL(/\/w\/[0-9a-f-]{36}$/);
});
