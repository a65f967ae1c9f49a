import type { BrowserContext } from "@playwright/test";
import { demoId } from "../demo/workshop";
import { POT, read } from "./pot";
import { expect, keptOn, open, test, testOnNewDevice, workIn } from "./support";

/** What the server has of a pot, by another browser. */
async function told(context: BrowserContext, workshop: string): Promise<string[]> {
  const answer = await context.request.get(`/api/workshops/${workshop}/batches/${demoId(8, 6)}/record?as=csv`);
  return (await answer.text()).split("\n").filter((row) => row.includes("read"));
}

test("two tabs of one pot without a network: all that both entered arrives, once, though one was closed", async ({ page, context, workshop }) => {
  await open(page, POT);
  const before = (await told(context, workshop)).length;
  const other = await context.newPage();
  await open(other, POT);
  await context.setOffline(true);
  // At 50 °C the heat reading stays the next step.
  for (const [tab, shown] of [
    [page, "50.1"],
    [other, "50.2"],
    [page, "50.3"],
    [other, "50.4"],
    [page, "50.5"],
    [other, "50.6"],
  ] as const)
    await read(tab, shown);
  await expect(page.getByText("6 entries are kept on this device")).toBeVisible();
  // A correction counts at once as well: its form does not wait for the network.
  await page.getByRole("button", { name: /^Correct: .*50\.5/ }).click();
  await page.getByLabel("What the instrument showed").fill("50.7");
  await page.getByRole("button", { name: "Save correction" }).click();
  await expect(page.getByText("7 entries are kept on this device")).toBeVisible();
  await expect(page.getByRole("button", { name: "Save correction" })).toBeHidden();
  await other.close();
  await context.setOffline(false);
  await expect(page.getByText(/kept on this device/)).toBeHidden();
  const rows = await told(context, workshop);
  expect(rows.length).toBe(before + 7);
  for (const shown of ["50.1", "50.2", "50.3", "50.4", "50.5", "50.6", "50.7"]) expect(rows.filter((row) => row.includes(`,${shown},,`))).toHaveLength(1);
});

test("what the server refuses stays on the device with its reason, over a reload, and is mended, moved or dropped by hand", async ({
  page,
  context,
  workshop,
  browser,
}) => {
  await open(page, POT);
  await context.setOffline(true);
  await read(page, "51");
  await read(page, "52");
  await read(page, "53");
  await expect(page.getByText("3 entries are kept on this device")).toBeVisible();
  // Meanwhile the batch is abandoned elsewhere.
  const elsewhere = await browser.newContext();
  await workIn(elsewhere, workshop);
  const helper = await elsewhere.newPage();
  await open(helper, POT);
  await helper.getByRole("button", { name: "Abandon this batch" }).click();
  await helper.getByLabel("Why").fill("spilt");
  await helper.getByRole("button", { name: "Abandon batch" }).click();
  await expect(helper.getByRole("button", { name: "Restore draft again" })).toBeVisible();
  // The page shows it before it is written: closed now, it would wait on that device.
  const record = `/api/workshops/${workshop}/batches/${demoId(8, 6)}/record?as=csv`;
  await expect.poll(async () => (await elsewhere.request.get(record)).text()).toContain("abandoned");
  await elsewhere.close();

  await context.setOffline(false);
  const strip = page.getByRole("status").filter({ hasText: "were refused" });
  await expect(strip).toContainText("3 entries of this device were refused");
  // It is seen wherever the maker is, also after a reload.
  await open(page, "/shelf");
  await strip.getByRole("button", { name: "Look at them" }).click();
  const list = page.getByRole("dialog", { name: "Rejected entries" });
  await expect(list).toContainText("51 °C");
  await expect(list).toContainText("batch 16");
  await expect(list.getByRole("listitem")).toHaveCount(3);

  await list.getByRole("listitem").filter({ hasText: "53 °C" }).getByRole("button", { name: "Discard entry" }).click();
  await expect(list.getByRole("listitem")).toHaveCount(2);
  await page.getByRole("button", { name: "Have it back" }).click();
  await expect(list.getByRole("listitem")).toHaveCount(3);
  await list.getByRole("listitem").filter({ hasText: "53 °C" }).getByRole("button", { name: "Discard entry" }).click();

  // Moved to the pot that it really belonged to.
  const moved = list.getByRole("listitem").filter({ hasText: "52 °C" });
  await moved.getByRole("button", { name: "Move it to another batch" }).click();
  await moved.getByRole("button", { name: /^15 / }).click();
  await expect(list.getByRole("listitem")).toHaveCount(1);
  // Mended, and the batch is taken up again: then it is taken.
  const answer = await page.request.get(`/api/workshops/${workshop}/batches/${demoId(8, 6)}/log?after=0`);
  const abandoned = ((await answer.json()) as { events: { id: string; kind: string }[] }).events.find((event) => event.kind === "abandoned");
  expect(abandoned).toBeDefined();
  const mended = list.getByRole("listitem").filter({ hasText: "51 °C" });
  await mended.getByRole("button", { name: "Fix entry" }).click();
  await mended.getByLabel("What the instrument showed").fill("51.5");
  await mended.getByRole("button", { name: "Send it so" }).click();
  await expect(list.getByRole("listitem").filter({ hasText: "51.5 °C" })).toContainText("abandoned");
  await list.getByRole("button", { name: "Close" }).click();
  await open(page, POT);
  await page.getByRole("button", { name: "Restore draft again" }).click();
  await strip
    .or(page.getByRole("status").filter({ hasText: "was refused" }))
    .getByRole("button", { name: "Look at it" })
    .click();
  await page.getByRole("dialog").getByRole("button", { name: "Send again unchanged" }).click();
  await expect(page.getByText("51.5 °C").first()).toBeVisible();
});

test("a device that keeps nothing says so before it is relied on, and the page works", async ({ page, context }) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, "indexedDB", {
      get() {
        throw new DOMException("The operation is insecure.", "SecurityError");
      },
    });
  });
  await open(page, POT);
  const strip = page.getByRole("alert").filter({ hasText: "This browser cannot save entries" });
  await expect(strip).toContainText("entries wait in this open page only");
  await read(page, "54");
  await expect(page.getByText("54 °C").first()).toBeVisible();
  await context.setOffline(true);
  await read(page, "55");
  await expect(strip).toContainText("1 entry waits in this page only");
  await expect(page.getByText(/is kept on this device/)).toBeHidden();
  await context.setOffline(false);
  await expect(strip).toContainText("While the workshop cannot be reached");
});

test("text that was pasted with signs nobody sees is cleaned, and does not stop what follows", async ({ page }) => {
  await open(page, POT);
  await page.getByLabel("Note").evaluate((field: HTMLInputElement) => {
    const set = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), "value")?.set;
    set?.call(field, "frost\u0000ed\u0007 rim");
    field.dispatchEvent(new Event("input", { bubbles: true }));
  });
  await page.getByRole("button", { name: "Add the note" }).click();
  await expect(page.getByText("frosted rim")).toBeVisible();
  await read(page, "56");
  await page.reload();
  await expect(page.getByText("frosted rim")).toBeVisible();
  await expect(page.getByText("56 °C").first()).toBeVisible();
});

test.describe("with pages kept", () => {
  testOnNewDevice.use({ serviceWorkers: "allow" });

  testOnNewDevice("what is worked out beside the page still is once the page keeps its own files, and the network goes", async ({ page, context }) => {
    await open(page, "/plan/day?on=2026-03-24");
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    const pieces = page.getByRole("textbox", { name: "Hay loft, squat tumbler" });
    const shown = page.getByRole("img", { name: /^The day by pot/ });
    await pieces.fill("6");
    await expect(shown).toBeVisible();
    await context.setOffline(true);
    await pieces.fill("");
    await expect(shown).toBeHidden();
    await pieces.fill("12");
    await expect(shown).toBeVisible();
  });

  testOnNewDevice("jars are inspected where there is no network, over a reload, and arrive once and in order", async ({ page, context, workshop }) => {
    const path = `/inspect/${demoId(8, 3)}`;
    await open(page, path);
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    await keptOn(page, path);
    await context.setOffline(true);
    const hand = page.getByRole("region", { name: "The jar in the hand" });
    await page.getByRole("button", { name: "Fine, next jar" }).click();
    await expect(hand).toContainText("jar 2");
    await page.reload();
    await expect(hand).toContainText("jar 2");
    await page.getByRole("radio", { name: "top" }).click();
    await page.getByRole("radio", { name: "rough, pitted top" }).click();
    await page.getByRole("button", { name: "a speck" }).click();
    await page.getByRole("button", { name: "Save, next jar" }).click();
    await expect(hand).toContainText("jar 3");
    await expect(page.getByText("2 entries are kept on this device")).toBeVisible();
    await context.setOffline(false);
    await expect(page.getByText(/kept on this device/)).toHaveCount(0);
    const record = await context.request.get(`/api/workshops/${workshop}/batches/${demoId(8, 3)}/record`);
    const { events } = (await record.json()) as { events: { kind: string; payload: { flaws?: { defect: string }[] } }[] };
    expect(events.filter((event) => event.kind === "jarsInspected").map((event) => event.payload.flaws?.map((flaw) => flaw.defect))).toEqual([
      [],
      ["rough_top"],
    ]);
  });

  testOnNewDevice("a trial opens without the server, takes a look over a reload, and sends it once it is back", async ({ page, context, workshop }) => {
    const path = `/burn/${demoId(0x3f, 2)}`;
    await open(page, path);
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    for (const address of ["/burn", path]) await keptOn(page, address);
    await context.setOffline(true);
    await page.reload();
    await expect(page.getByText("This page is from")).toBeVisible();
    await page.getByRole("button", { name: "Check B2" }).click();
    await page.getByRole("group", { name: "Flame" }).getByRole("button", { name: "small" }).click();
    await page.getByRole("button", { name: "Save check", exact: true }).click();
    await expect(page.getByText("1 entry is kept on this device")).toBeVisible();
    await page.reload();
    await expect(page.getByText("1 entry is kept on this device")).toBeVisible();
    await context.setOffline(false);
    await expect(page.getByText(/1 entry is kept/)).toBeHidden();
    const record = await context.request.get(`/api/workshops/${workshop}/trials/${demoId(0x3f, 2)}/record`);
    const { events } = (await record.json()) as { events: { kind: string; payload: { testCandle?: string; flame?: string } }[] };
    expect(events.filter((event) => event.kind === "checked" && event.payload.testCandle === "B2" && event.payload.flame === "small")).toHaveLength(1);
  });

  testOnNewDevice(
    "bench, rack, inspect and the pots open without the server, take entries over a reload, and send them once it is back",
    async ({ page, context, workshop }) => {
      await open(page, POT);
      await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
      for (const path of ["/bench", "/rack", "/inspect", POT]) await keptOn(page, path);
      // What was entered after the page was kept is known all the same.
      await read(page, "57");
      await expect(page.getByText("57 °C").first()).toBeVisible();
      await expect.poll(async () => (await told(context, workshop)).some((row) => row.includes(",57,,"))).toBe(true);

      await context.setOffline(true);
      await page.reload();
      await expect(page.getByText("This page is from")).toBeVisible();
      await expect(page.getByText("57 °C").first()).toBeVisible();
      await read(page, "58");
      await page.getByLabel("Note").fill("by candle light");
      await page.getByRole("button", { name: "Add the note" }).click();
      await expect(page.getByText("2 entries are kept on this device")).toBeVisible();
      await page.reload();
      await expect(page.getByText("58 °C").first()).toBeVisible();
      await expect(page.getByText("by candle light")).toBeVisible();
      await expect(page.getByText("2 entries are kept on this device")).toBeVisible();
      // From one to another by its link, as at the bench.
      await page.getByRole("link", { name: /^rack/ }).click();
      await expect(page.getByRole("heading", { name: "Rack" })).toBeVisible();
      await page.goto("/inspect");
      await expect(page.getByRole("heading", { name: "Inspect", exact: true })).toBeVisible();
      await page.goto("/bench");
      await page.getByRole("listitem").filter({ hasText: "Quince and smoke, tin" }).getByRole("link", { name: "Go to the pot" }).click();
      await expect(page.getByText("by candle light")).toBeVisible();

      await context.setOffline(false);
      await expect(page.getByText(/kept on this device/)).toHaveCount(0);
      const rows = await told(context, workshop);
      expect(rows.filter((row) => row.includes(",58,,"))).toHaveLength(1);
    },
  );
});
