import { type ChildProcess, spawn } from "node:child_process";
import { readFileSync, rmSync } from "node:fs";
import { type Browser, type BrowserContext, expect, type Page, test } from "@playwright/test";
import { freePort, passingHome } from "../tools/processes";
import { ALL, axe, finds } from "./axe";
import { listens, PROGRAM } from "./support";

/** A maker's own workshop that others are let into, as it is started every day; one for all tests of this file. */
let started: { address: string; code: string; process: ChildProcess; home: string };
const PASSWORD = "a sentence about salt and wicks";

test.describe.configure({ mode: "serial" });
test.beforeAll(async () => {
  const home = passingHome("auth");
  const port = await freePort();
  const child = spawn("./hearth", ["start", "--listen", "127.0.0.1"], {
    cwd: PROGRAM,
    env: { ...process.env, HEARTH_HOME: home, PORT: String(port), DATABASE_URL: "" },
    detached: true,
    stdio: ["ignore", "pipe", "inherit"],
  });
  let said = "";
  child.stdout?.on("data", (piece) => {
    said += piece;
  });
  await expect.poll(() => /with this code: (\S+)/.test(said) || child.exitCode !== null, { timeout: 180_000 }).toBe(true);
  started = { address: `http://127.0.0.1:${port}`, code: /with this code: (\S+)/.exec(said)?.[1] ?? "", process: child, home };
});
test.afterAll(async () => {
  const gone = new Promise((done) => started.process.once("exit", done));
  process.kill(-(started.process.pid as number), "SIGTERM");
  await gone;
  rmSync(started.home, { recursive: true, force: true });
});

const fresh = async (browser: Browser, phone = false, storageState?: string): Promise<{ context: BrowserContext; page: Page }> => {
  const context = await browser.newContext({
    baseURL: started.address,
    locale: "en-GB",
    timezoneId: "UTC",
    reducedMotion: "reduce",
    serviceWorkers: phone ? "allow" : "block",
    storageState,
    ...(phone ? { viewport: { width: 390, height: 844 } } : {}),
  });
  return { context, page: await context.newPage() };
};
/** The owner, signed in as the first test left it. */
async function owned(browser: Browser): Promise<{ page: Page; workshop: string }> {
  const { page } = await fresh(browser, false, `${started.home}/owner.json`);
  await page.goto("/");
  await page.waitForURL(/\/w\//);
  return { page, workshop: workshopIn(page) };
}
const workshopIn = (page: Page): string => /\/w\/([0-9a-f-]{36})/.exec(page.url())?.[1] ?? "";

async function makeWorkshop(page: Page, name: string): Promise<string> {
  await page.goto("/workshops");
  const form = page.locator("section", { hasText: "A new, empty workshop" }).last();
  await form.getByLabel("Name of the workshop").fill(name);
  await form.getByLabel("Your first name").fill("Ilvo");
  await form.getByRole("button", { name: "Create workshop" }).click();
  await page.waitForURL(/\/w\/[0-9a-f-]{36}$/);
  return workshopIn(page);
}
/** Somebody comes in by a link that the owner makes. */
async function invited(owner: Page, browser: Browser, workshop: string, name: string, role: string): Promise<{ context: BrowserContext; page: Page }> {
  await owner.goto(`/w/${workshop}/people`);
  await listens(owner);
  await owner.getByLabel("First name of a new person").fill(name);
  await owner.getByRole("button", { name: "Add", exact: true }).click();
  const row = owner.locator(`[data-person="${name}"]`);
  await row.getByLabel(`What ${name} may do`).selectOption(role);
  await row.getByRole("button", { name: "Create invitation link" }).click();
  const link = await row.locator("code").innerText();
  const { context, page } = await fresh(browser);
  await page.goto(link);
  await page.getByLabel("Email").fill(`${name.toLowerCase()}@shed.example`);
  await page.getByLabel("Password").fill(PASSWORD);
  await page.getByRole("button", { name: "Create account" }).click();
  await page.getByRole("button", { name: /I have them/ }).click();
  await page.waitForURL(/\/w\/[0-9a-f-]{36}/);
  return { context, page };
}

test("the first account owns the machine's workshops; a phone joins, logs a pot beside the laptop, is cut off, and sees it no more", async ({ browser }) => {
  const { context, page: owner } = await fresh(browser);
  await owner.goto("/");
  await expect(owner.getByRole("heading", { name: "Sign in" })).toBeVisible();
  await owner.goto("/sign-in/first");
  await owner.getByLabel("Code that was printed").fill("AAAA-BBBB-CCCC");
  await owner.getByLabel("Your first name").fill("Ilvo");
  await owner.getByLabel("Email").fill("ilvo@shed.example");
  await owner.getByLabel("Password").fill(PASSWORD);
  await owner.getByRole("button", { name: "Create account" }).click();
  await expect(owner.getByText(/not the code that was printed/)).toBeVisible();
  await owner.getByLabel("Code that was printed").fill(started.code);
  await owner.getByRole("button", { name: "Create account" }).click();
  await expect(owner.getByRole("heading", { name: "Print or write down these codes" })).toBeVisible();
  await owner.getByRole("button", { name: /I have them/ }).click();
  const workshop = await makeWorkshop(owner, "Saltmarsh shed");
  await context.storageState({ path: `${started.home}/owner.json` });

  await owner.goto(`/w/${workshop}/people`);
  await listens(owner);
  await owner.getByRole("button", { name: "Give a PIN" }).click();
  await owner.getByLabel("PIN of Ilvo").fill("1234");
  await owner.getByRole("button", { name: "Save PIN" }).click();
  await expect(owner.getByText(/This PIN is too easy to guess/).first()).toBeVisible();
  await owner.getByLabel("PIN of Ilvo").fill("4821");
  await owner.getByRole("button", { name: "Save PIN" }).click();
  await expect(owner.getByText("has an account, has a PIN")).toBeVisible();
  await owner.getByLabel("Name of the device").fill("phone on the shelf");
  await owner.getByRole("button", { name: "Show code" }).click();
  const code = await owner.locator("[data-code]").innerText();

  const { page: phone } = await fresh(browser, true);
  await phone.goto("/join");
  await phone.getByLabel("Code").fill(code.toLowerCase().replace("-", ""));
  await phone.getByRole("button", { name: "Join" }).click();
  await expect(phone.getByRole("heading", { name: "Who works here?" })).toBeVisible();
  await phone.getByLabel("PIN of Ilvo").fill("4822");
  await phone.getByRole("button", { name: "Work as Ilvo" }).click();
  await expect(phone.getByText("This PIN is wrong.").first()).toBeVisible();
  await phone.getByLabel("PIN of Ilvo").fill("4821");
  await phone.getByRole("button", { name: "Work as Ilvo" }).click();
  await expect(phone.getByRole("heading", { name: "Bench" })).toBeVisible();
  await listens(phone);
  // Nobody scans the same code twice.
  const { page: thief } = await fresh(browser);
  await thief.goto(`/join?code=${code}`);
  await thief.getByRole("button", { name: "Join" }).click();
  await expect(thief.getByText(/was used already or has expired/).first()).toBeVisible();

  const pot = await firstPot(owner, workshop);
  await phone.goto(pot);
  await listens(phone);
  await phone.getByPlaceholder("Anything out of the ordinary").fill("from the phone");
  await phone.getByRole("button", { name: "Add the note" }).click();
  await expect(phone.getByText("✓ Recorded").first()).toBeVisible();
  await owner.goto(pot);
  await expect(owner.getByText("“from the phone”").first()).toBeVisible();
  await listens(owner);
  await owner.getByPlaceholder("Anything out of the ordinary").fill("from the laptop");
  await owner.getByRole("button", { name: "Add the note" }).click();
  await expect(phone.getByText("“from the laptop”").first()).toBeVisible();

  // No page with a price opens on it; then it is cut off, hears so at once, and keeps nothing.
  await phone.goto(`/w/${workshop}/products`);
  await expect(phone.getByText("“products” is not available to you.")).toBeVisible();
  await phone.goto(pot);
  await listens(phone);
  // The menu is a part of the program that is read when it is first opened: here with the network.
  await phone.getByRole("button", { name: /^Who is working/ }).click();
  await expect(phone.getByText("Switch person…")).toBeVisible();
  await phone.keyboard.press("Escape");
  await expect(phone.getByText("Switch person…")).toBeHidden();
  // Without the network nobody is signed out, and it says so: the next person would go on under this name.
  await phone.context().setOffline(true);
  await phone.getByRole("button", { name: /^Who is working/ }).click();
  await phone.getByText("Switch person…").click();
  await expect(phone.getByText(/You are not signed out, because the workshop cannot be reached/).first()).toBeVisible();
  await phone.getByPlaceholder("Anything out of the ordinary").fill("never sent");
  await phone.getByRole("button", { name: "Add the note" }).click();
  await expect(phone.getByText("1 entry is kept on this device").first()).toBeVisible();
  await owner.goto(`/w/${workshop}/people`);
  await owner.locator('[data-device="phone on the shelf"]').getByRole("button", { name: "Revoke access" }).click();
  await expect(owner.getByText(/It was last seen .* entries that were not sent are lost/).first()).toBeVisible();
  await owner.getByRole("button", { name: "Revoke access of phone on the shelf" }).click();
  await expect(owner.getByText("Access of phone on the shelf is revoked.").first()).toBeVisible();
  await phone.context().setOffline(false);
  await expect(phone.getByText(/access to its workshop was revoked/).first()).toBeVisible();
  await expect(phone.getByText("1 entry that was not sent was wiped with it").first()).toBeVisible();
  await expect(phone.getByText(/never sent/).first()).toBeVisible();
  await expect
    .poll(() => phone.evaluate(async () => [(await caches.keys()).length, (await navigator.serviceWorker.getRegistrations()).length]))
    .toEqual([0, 0]);
  await phone.goto(pot);
  await expect(phone.getByRole("heading", { name: "Sign in" })).toBeVisible();
  expect((await phone.request.get(`/api/workshops/${workshop}/batches`)).status()).toBe(401);

  await owner.goto(`/w/${workshop}/people/audit-log`);
  await expect(owner.getByText("No gap")).toBeVisible();
  await expect(owner.getByRole("listitem").filter({ hasText: "device: phone on the shelf" }).first()).toContainText("by Ilvo");
});

/** A first batch by the shortest way, as the owner. */
async function firstPot(page: Page, workshop: string): Promise<string> {
  const send = async (path: string, body: object) => {
    const answer = await page.request.post(path, { data: body, headers: { origin: started.address } });
    expect(answer.status(), await answer.text()).toBeLessThan(300);
  };
  // A record of an earlier version, as far as its pot had come before it was poured.
  const record = JSON.parse(readFileSync(new URL("../web/testing/fixtures/record-format-1.json", import.meta.url), "utf8")) as { events: { kind: string }[] };
  record.events = record.events.slice(
    0,
    record.events.findIndex((event) => event.kind === "poured"),
  );
  await send(`/api/workshops/${workshop}/import`, record);
  const { batches } = (await (await page.request.get(`/api/workshops/${workshop}/batches`)).json()) as { batches: { id: string }[] };
  return `/w/${workshop}/bench/${batches[0]?.id}`;
}

test("the sign-in pages meet WCAG 2.2 AA and the best practice that axe-core knows, and run off no phone", async ({ browser }) => {
  const { page: inside, workshop } = await owned(browser);
  const { page: outside } = await fresh(browser);
  const pages: [Page, string][] = [
    [outside, "/sign-in"],
    [outside, "/sign-in/lost"],
    [outside, "/sign-in/new-password?token=x"],
    [outside, "/join?code=AAAA-BBBB&cut=1"],
    [outside, `/invite/${workshop}/x`],
    [inside, "/account"],
    [inside, `/w/${workshop}/people`],
    [inside, `/w/${workshop}/people/audit-log`],
  ];
  for (const [page, path] of pages)
    for (const size of [
      { width: 1280, height: 800 },
      { width: 390, height: 844 },
    ]) {
      await page.setViewportSize(size);
      await page.goto(path);
      await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
      await page.evaluate(axe);
      expect.soft(await finds(page, ALL), `${path} at ${size.width}`).toEqual([]);
      expect.soft(await page.evaluate(() => document.documentElement.scrollWidth), `${path} at ${size.width}`).toBeLessThanOrEqual(size.width);
    }
});

test("a helper comes in by a link, works at the bench, and opens no prices; two workshops do not see each other", async ({ browser }) => {
  const { page: owner, workshop } = await owned(browser);
  const { page: helper } = await invited(owner, browser, workshop, "Maren", "helper");
  await expect(helper.getByRole("heading", { name: "Bench" })).toBeVisible();
  await expect(helper.getByRole("navigation", { name: "Sections" }).getByRole("link")).toHaveText([/bench/, /rack/, /inspect/, /burn/]);
  for (const path of ["products", "shelf", "plan", "sell", "records", "findings", "people", "formulas"]) {
    await helper.goto(`/w/${workshop}/${path}`);
    await expect(helper.getByText(`“${path}” is not available to you.`)).toBeVisible();
  }
  for (const path of [
    `/api/workshops/${workshop}/catalogue`,
    `/api/workshops/${workshop}/shelf/lot`,
    `/api/workshops/${workshop}/sales`,
    `/api/workshops/${workshop}/whole`,
  ])
    expect((await helper.request.get(path)).status(), path).toBe(403);

  // The owner of another workshop on the same machine, and the first one: neither sees the other's.
  const { page: stranger } = await invited(owner, browser, workshop, "Tamsin", "viewer");
  await expect(stranger.getByText("View only")).toBeVisible();
  const other = await makeWorkshop(stranger, "Dune kiln");
  await owner.goto(`/w/${other}/bench`);
  await expect(owner.getByRole("heading", { name: "Workshops" })).toBeVisible();
  await expect(owner.getByText("Dune kiln")).toHaveCount(0);
  for (const path of ["batches", "catalogue", "live", "whole"]) expect((await owner.request.get(`/api/workshops/${other}/${path}`)).status(), path).toBe(404);
  // Who has left is out at once.
  await owner.goto(`/w/${workshop}/people`);
  const row = owner.locator('[data-person="Maren"]');
  await row.getByRole("button", { name: "Remove person" }).click();
  await row.getByRole("button", { name: /a former helper/ }).click();
  await expect(owner.locator('[data-person="a former helper"]')).toBeVisible();
  await helper.goto(`/w/${workshop}/bench`);
  await expect(helper.getByRole("heading", { name: "Bench" })).toHaveCount(0);
  expect((await helper.request.get(`/api/workshops/${workshop}/batches`)).status()).toBe(404);
});
