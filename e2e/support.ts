import { readFileSync, renameSync, writeFileSync } from "node:fs";
import type { SheetKind } from "@hearth/core";
import { type BrowserContext, test as base, chromium, expect, type Fixtures, type Locator, type Page, type PlaywrightTestArgs } from "@playwright/test";
import { FROZEN } from "../tools/shots";
import type { OtherUnits } from "../tools/stagehand";

const clockFile = () => {
  const file = process.env.HEARTH_CLOCK;
  if (!file) throw new Error("Run the browser tests with ./hearth test browser.");
  return file;
};

/** Sets the workshop's clock; the interface shows it at the next load. Whole at once: the server may read it at any moment. */
export const setClock = (iso: string): void => {
  const file = clockFile();
  if (readFileSync(file, "utf8") === iso) return;
  writeFileSync(`${file}.next`, iso);
  renameSync(`${file}.next`, file);
};

/** Moves the workshop's clock on, in hours. */
export const passHours = (hours: number): void => setClock(new Date(Date.parse(readFileSync(clockFile(), "utf8")) + hours * 3_600_000).toISOString());

/** Asks for what is done behind the scenes. */
async function ask(
  what: "stop" | "take" | "restore" | "start" | "workshop" | "empty" | `shelf?${string}` | `spoil?${string}` | `damage?${string}`,
  body?: string,
): Promise<string> {
  const answer = await fetch(`${process.env.HEARTH_STAGEHAND}/${what}`, body === undefined ? {} : { method: "POST", body });
  const said = await answer.text();
  expect(answer.ok, said).toBe(true);
  return said;
}

/** Takes the database away, and brings it back. A test that does so runs alone. */
export const database = (turn: "stop" | "start"): Promise<string> => ask(turn);

/** Takes a backup of the database, or restores the one that was taken. A test that does so runs alone. */
export const backup = (turn: "take" | "restore"): Promise<string> => ask(turn);

/** Spoils the batches of a workshop, so that their pages fail though the server is well. */
export const spoilBatches = (workshop: string): Promise<string> => ask(`spoil?${workshop}`);

/** Damages the starts of a workshop's first three batches, each in another way. Returns their ids. */
export const damageStarts = async (workshop: string): Promise<string[]> => (await ask(`damage?${workshop}`)).split(",");

/** A test that moves the clock, takes the database away or needs the whole machine runs by itself, after those that run side by side. */
export const ALONE = { tag: "@alone" };

/** Works in this workshop, in every page of the context. */
export const workIn = (context: BrowserContext, workshop: string): Promise<void> =>
  context.addCookies([{ name: "hearth_workshop", value: workshop, url: process.env.HEARTH_URL ?? "" }]);

/** Removes what a test left in a browser profile: pages, routes, cookies and whatever the program kept. */
async function clear(profile: BrowserContext): Promise<void> {
  // The browser's first page stays empty and open, so that the browser does too.
  const [first, ...others] = profile.pages();
  if (!first) throw new Error("The browser's first page was closed by a test.");
  for (const page of others) await page.close();
  await profile.unrouteAll({ behavior: "ignoreErrors" });
  await profile.setOffline(false);
  await profile.clearCookies();
  await profile.clearPermissions();
  const session = await profile.newCDPSession(first);
  await session.send("Storage.clearDataForOrigin", { origin: process.env.HEARTH_URL ?? "", storageTypes: "all" });
  await session.detach();
}

/**
 * A test in a browser profile that serves all tests of a worker and is cleared after each. A profile keeps the program's
 * scripts compiled; an ordinary context compiles them again in every test, which takes about two seconds of a processor.
 */
export const testInProfile = base.extend<object, { profile: BrowserContext }>({
  profile: [
    async ({ launchOptions }, use, { project }) => {
      const { baseURL, locale, timezoneId, viewport, serviceWorkers, contextOptions } = project.use;
      const options = { ...launchOptions, ...contextOptions, baseURL, locale, timezoneId, viewport, serviceWorkers };
      const profile = await chromium.launchPersistentContext("", options);
      await use(profile);
      await profile.close();
    },
    { scope: "worker" },
  ],
  context: async ({ profile, actionTimeout, locale, timezoneId, viewport, serviceWorkers }, use, { project }) => {
    const asked = { locale, timezoneId, viewport, serviceWorkers };
    expect(project.use, "A test with options of its own is a testOnNewDevice").toMatchObject(asked);
    profile.setDefaultTimeout(actionTimeout ?? 0);
    await use(profile);
    await clear(profile);
  },
});

/** What each test has: a demo workshop of its own, the frozen moment as its beginning, and a failure on any error in the page. */
const inWorkshop: Fixtures<{ quiet: undefined; workshop: string }, object, PlaywrightTestArgs> = {
  workshop: [
    // biome-ignore lint/correctness/noEmptyPattern: the runner reads which fixtures are asked for from the pattern.
    async ({}, use) => use(await ask("workshop")),
    { auto: true },
  ],
  context: async ({ context, workshop }, use) => {
    await workIn(context, workshop);
    await use(context);
  },
  quiet: [
    async ({ page }, use) => {
      setClock(FROZEN);
      const errors: string[] = [];
      page.on("pageerror", (error) => errors.push(error.message));
      await use(undefined);
      setClock(FROZEN);
      expect(errors).toEqual([]);
    },
    { auto: true },
  ],
};

export const test = testInProfile.extend(inWorkshop);

/**
 * As `test`, in an ordinary context, which knows nothing of other tests: for a test that sets options of its own, registers
 * a service worker, adds scripts to its context, or is about what is not loaded yet.
 */
export const testOnNewDevice = base.extend(inWorkshop);

/** The folder of the program that the tests are about, built as the Containerfile does it. */
export const PROGRAM = process.env.HEARTH_PROGRAM ?? "";

/** Waits until the page listens: live changes keep a connection open, so that the network is never idle. */
export const listens = (page: Page): Promise<unknown> => page.locator("html[data-hydrated]").waitFor({ state: "attached" });

/** Waits until the device keeps a page, so that it opens without the network. */
export const keptOn = (page: Page, path: string): Promise<void> =>
  expect.poll(async () => page.evaluate(async (asked) => Boolean(await caches.match(asked, { ignoreVary: true })), await addressOf(page, path))).toBe(true);

/** The id of the workshop that the test works in. */
export const workshopOf = async (page: Page): Promise<string | undefined> =>
  (await page.context().cookies(process.env.HEARTH_URL ?? "")).find((cookie) => cookie.name === "hearth_workshop")?.value;

/** The address of a path within the workshop that the test works in. */
export async function addressOf(page: Page, path: string): Promise<string> {
  if (/^\/(w|api|workshops)(\/|$)|^http/.test(path)) return path;
  const workshop = await workshopOf(page);
  return workshop ? `/w/${workshop}${path === "/" ? "" : path}` : path;
}

/** Opens a page and waits until it listens. */
export async function open(page: Page, path: string): Promise<void> {
  await page.goto(await addressOf(page, path));
  await listens(page);
}

/** Moves on with Tab until the element has the focus, as somebody without a mouse would. */
export async function tabTo(page: Page, target: Locator, most = 80): Promise<void> {
  await target.waitFor();
  for (let i = 0; i < most; i++) {
    if (await target.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`Tab did not reach ${target} in ${most} presses.`);
}

/** Chooses by typing a part of a name, as a maker would. */
export async function choose(within: Page | Locator, label: string | RegExp, name: string, nth = 0): Promise<void> {
  const field = within.getByRole("combobox", { name: label }).nth(nth);
  await field.click();
  await field.fill(name);
  const page = "page" in within ? within.page() : within;
  const begins = new RegExp(`^(✓ )?${name.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}`);
  await page.getByRole("option", { name: begins }).first().click();
  await expect(field).toHaveValue(begins);
}

/** Opens the options of a plan that are folded away. */
export async function moreOptions(page: Page): Promise<void> {
  const options = page.locator("details", { hasText: "More options" });
  if ((await options.getAttribute("open")) === null) await options.locator("summary").click();
}

/** Opens how far a line of a plan is filled, and with which wicks. */
export const openLine = (page: Page, line: string): Promise<void> => page.getByRole("listitem").filter({ hasText: line }).locator("summary").click();

/** Works in an empty workshop, made behind the scenes. */
export async function emptyWorkshop(page: Page, name: string, units: OtherUnits = {}): Promise<void> {
  await workIn(page.context(), await ask("empty", JSON.stringify({ name, ...units })));
}

/** Puts things on the shelf of the workshop that the test works in, behind the scenes: the rows of a CSV file of one part of it. */
export async function putOnShelf(page: Page, part: SheetKind, rows: string): Promise<void> {
  await ask(`shelf?${await workshopOf(page)}&${part}`, rows);
}

export { expect };
