import { writeFileSync } from "node:fs";
import { demoId } from "../demo/workshop";
import program from "../package.json" with { type: "json" };
import { ALONE, database, emptyWorkshop, expect, open, test } from "./support";

test("two windows on one formula: the later save is told what changed, and loses nothing typed", async ({ page, context }) => {
  await open(page, `/formulas/${demoId(6, 2)}`);
  const other = await context.newPage();
  await open(other, `/formulas/${demoId(6, 2)}`);
  await other.getByLabel("Pour at").fill("70–75");
  await other.getByRole("button", { name: "Save the formula" }).click();
  await expect(other.getByText(/Saved as version 2: the one before has been used/)).toBeVisible();

  await page.getByLabel("Notes").fill("Mine, typed in the meantime");
  await page.getByLabel("Load").fill("7,5");
  await page.getByLabel("Stir for").fill("3 min");
  await page.getByRole("button", { name: "Save the formula" }).click();
  const told = page.getByRole("alert").filter({ hasText: "saved this formula in the meantime" });
  await expect(told).toContainText("Ansa");
  await expect(told).toContainText("pour range: 71–77 °C → 70–75 °C");
  await expect(page.getByLabel("Notes")).toHaveValue("Mine, typed in the meantime");
  await expect(page.getByLabel("Load")).toHaveValue("7,5");
  await told.getByRole("button", { name: "Save mine over it" }).click();
  await expect(page.getByText("Saved, version 2.")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Load")).toHaveValue("7.5");
  await expect(page.getByText(/things changed at once/)).toBeVisible();
});

test("bad input is told at its field, and nothing typed is lost", async ({ page }) => {
  await open(page, "/formulas/new");
  const load = page.getByLabel("Load");
  for (const [typed, told] of [
    ["-3", "cannot be a load"],
    ["NaN", "is not a percentage"],
    ["ten", "is not a percentage"],
    ["1000", "cannot be a load"],
    ["", "Type a load in percent"],
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
  await expect(page.getByText("Type a count for at least one vessel.")).toBeVisible();
  const counts = page.getByLabel("Count");
  await counts.first().fill("1.5");
  await page.getByRole("button", { name: "Start the batch" }).click();
  await expect(page.getByText("1.5 is not a whole number of jars.")).toBeVisible();
  await counts.first().fill("0");
  await page.getByRole("button", { name: "Start the batch" }).click();
  await expect(page.getByText("Type a count for at least one vessel.")).toBeVisible();
  await expect(page).toHaveURL(/\/plan/);
});

test("while the database is away health says so, a form keeps its contents, and a reading waits on the device", ALONE, async ({ page, request }) => {
  await open(page, "/formulas/new");
  await page.getByLabel("Name", { exact: true }).fill("Typed while away");
  await page.getByLabel("Notes").fill("A long thought");
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
    await expect(page.getByText(/database is away just now|cannot be reached just now/)).toBeVisible();
    await expect(page.getByLabel("Notes")).toHaveValue("A long thought");
    await bench.getByLabel("Thermometer shows").fill("85");
    await bench.keyboard.press("Enter");
    await expect(bench.getByText("1 entry is kept on this device")).toBeVisible();
    // It counts on this device already.
    await expect(bench.getByRole("heading", { name: "Add the fragrance" })).toBeVisible();
    const third = await page.context().newPage();
    await third.goto("/rack");
    await expect(third.getByRole("heading", { name: "This page cannot be read just now" })).toBeVisible();
    away = third;
  } finally {
    await database("start");
  }
  await expect(bench.getByText("1 entry is kept on this device")).toBeHidden({ timeout: 20_000 });
  // A page that could not be read comes back by itself.
  await expect(away.getByRole("heading", { name: "Rack" })).toBeVisible({ timeout: 20_000 });
  await bench.reload();
  await expect(bench.getByText("heat reading, long probe").first()).toBeVisible();
  await expect(bench.getByText("heat reading, long probe")).toHaveCount(1);
  await page.getByRole("button", { name: "Save the formula" }).click();
  await expect(page.getByRole("heading", { name: "Typed while away" })).toBeVisible();
});

test("files that are no record are refused with the reason, and nothing is half-written", async ({ page }, info) => {
  await emptyWorkshop(page, "For broken files");
  await open(page, "/records/import");
  const input = page.getByLabel("A batch record, as JSON");
  const offer = async (name: string, content: string | Buffer) => {
    const path = info.outputPath(name);
    writeFileSync(path, content);
    await input.setInputFiles(path);
    await page.getByRole("button", { name: "Import it" }).click();
  };
  await page.getByRole("button", { name: "Import it" }).click();
  await expect(page.getByText("Choose the file first.")).toBeVisible();
  await offer("cut.json", '{"format":"hearth-jar/batch-record","version":1,"batch":{"id":"01');
  await expect(page.getByText("This file ends in the middle")).toBeVisible();
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
