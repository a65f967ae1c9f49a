import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { demoId } from "../demo/workshop";
import { ALONE, choose, emptyWorkshop, expect, open, passHours, test, testOnNewDevice } from "./support";

const TUMBLER = demoId(0x26, 1);
const BURNING = demoId(0x3f, 2);

const tab = (page: Page, name: string) => page.getByRole("navigation", { name: "Parts of the trial" }).getByRole("button", { name }).click();

/** Pours a batch as its plan says, at the workshop's time: what is tried here is the burning. */
async function poured(page: Page, workshop: string, batch: string): Promise<void> {
  const record = await (await page.request.get(`/api/workshops/${workshop}/batches/${batch}/record`)).json();
  const { plan } = record.events.find((event: { kind: string }) => event.kind === "started").payload;
  const { now } = await (await page.request.get("/api/clock")).json();
  const answer = await page.request.post(`/api/workshops/${workshop}/batches/${batch}/events`, {
    headers: { origin: new URL(page.url()).origin },
    data: {
      id: crypto.randomUUID(),
      v: 1,
      kind: "poured",
      happenedAt: now,
      personId: null,
      instrumentId: null,
      corrects: null,
      payload: {
        step: "pour",
        filled: plan.products.map((product: { key: string; count: number }) => ({ product: product.key, count: product.count })),
        leftMg: null,
        roomCelsius: null,
        warmed: null,
      },
    },
  });
  expect(answer.ok(), await answer.text()).toBe(true);
}

/** Begins what is designed; gives the trial's address and pours what it made. */
async function begun(page: Page, workshop: string): Promise<string> {
  await page.getByRole("button", { name: /^Begin, and pour/ }).click();
  await expect(page).toHaveURL(/\/bench\/[0-9a-f-]{36}$/);
  await poured(page, workshop, page.url().split("/").at(-1) as string);
  await open(page, "/burn");
  const path = await page.getByRole("listitem").filter({ hasText: "0 sessions" }).first().getByRole("link").first().getAttribute("href");
  if (!path) throw new Error("The trial is not listed.");
  return path;
}

const card = (page: Page, key: string) => page.getByRole("listitem", { name: `Test candle ${key}` });
async function light(page: Page, key: string, grams: string, why = ""): Promise<void> {
  await card(page, key)
    .getByRole("button", { name: `Light ${key}` })
    .click();
  await page.getByLabel(/Weight before/).fill(grams);
  if (why) await page.getByLabel("Reason for lighting it early").fill(why);
  await page.getByRole("button", { name: "Light candle" }).click();
  await expect(card(page, key).getByRole("button", { name: `Put out ${key}` })).toBeVisible();
}
interface Saw {
  mm: number;
  flame: string;
  soot?: string;
}
async function look(page: Page, key: string, { mm, flame, soot = "none" }: Saw): Promise<void> {
  await card(page, key)
    .getByRole("button", { name: `Check ${key}` })
    .click();
  await page.getByRole("slider", { name: "Width of the pool" }).fill(String(mm * 1_000));
  await page.getByRole("group", { name: "Flame" }).getByRole("button", { name: flame }).click();
  await page.getByRole("group", { name: "Mushroom on the wick" }).getByRole("button", { name: "none" }).click();
  await page.getByRole("group", { name: "Soot" }).getByRole("button", { name: soot }).click();
}
async function putOut(page: Page, key: string, grams: string): Promise<void> {
  await card(page, key)
    .getByRole("button", { name: `Put out ${key}` })
    .click();
  await page.getByRole("button", { name: "Session finished" }).click();
  await page.getByLabel(`Weight after ${key}`).fill(grams);
  await card(page, key).getByRole("button", { name: "Weighed" }).click();
  await expect(page.getByLabel(`Weight after ${key}`)).toBeHidden();
}

test.describe("on a phone", () => {
  testOnNewDevice.use({ viewport: { width: 390, height: 844 } });

  testOnNewDevice("three wicks in doubles are poured, burned by the clock and judged; one is put out for safety", ALONE, async ({ page, workshop }) => {
    await open(page, `/burn/new?product=${TUMBLER}`);
    await page.getByRole("button", { name: "wick kind" }).click();
    await page.getByRole("button", { name: /^All \d/ }).click();
    const wicks = ["flat-braid cotton 6", "wooden 12", "flat-braid cotton 4"];
    for (const box of await page.getByRole("region", { name: "Variants" }).getByRole("checkbox").all()) await box.uncheck();
    for (const wick of wicks) await page.getByRole("checkbox", { name: new RegExp(`^${wick}`) }).check();
    await page.getByRole("checkbox", { name: /Half-filled/ }).uncheck();
    await page.getByLabel("Checks of each session").fill("4");
    await page.getByLabel("Hours of rest").fill("8");
    const path = await begun(page, workshop);

    // The least cure is not over: it is lit only with a reason.
    await open(page, path);
    await card(page, "A1").getByRole("button", { name: "Light A1" }).click();
    await page.getByRole("button", { name: "Light candle" }).click();
    await expect(page.getByText(/Enter why it is lit before the minimum cure/)).toBeVisible();
    await page.getByRole("button", { name: "Back" }).click();
    passHours(24 * 30);

    // A is the cotton 6, B the cotton 4, C the wooden one: in the order in which they stand on the page.
    const saw: Record<string, Saw> = {};
    await open(page, path);
    for (const key of ["A1", "B1", "C1"]) {
      const words = (await card(page, key).textContent()) ?? "";
      saw[key[0] as string] = words.includes("cotton 6")
        ? { mm: 76, flame: "steady" }
        : words.includes("cotton 4")
          ? { mm: 50, flame: "small" }
          : { mm: 76, flame: "jumping", soot: "black" };
    }
    const safe = Object.keys(saw).filter((option) => saw[option]?.flame !== "jumping");
    const [unsafe] = Object.keys(saw).filter((option) => saw[option]?.flame === "jumping");
    for (let session = 0; session < 3; session++) {
      const keys = (session === 0 ? Object.keys(saw) : safe).flatMap((option) => [`${option}1`, `${option}2`]);
      for (const key of keys) await light(page, key, String(400 - session * 17));
      passHours(4);
      await open(page, path);
      await expect(card(page, keys[0] as string).getByText("Check it now")).toBeVisible();
      for (const key of keys) {
        await look(page, key, saw[key[0] as string] as Saw);
        if (key[0] !== unsafe) {
          await page.getByRole("button", { name: "Save check", exact: true }).click();
          await putOut(page, key, String(383 - session * 17));
          continue;
        }
        // Said loudly, with what to do.
        await expect(page.getByRole("alert").filter({ hasText: "jumping" })).toContainText(/Put it out now.*Never water/);
        await page.getByRole("button", { name: "Save check, candle out" }).click();
        await expect(card(page, key)).toBeVisible();
      }
      passHours(10);
      await open(page, path);
    }

    await tab(page, "Verdict");
    const option = (letter: string) => page.getByRole("listitem", { name: `Variant ${letter}` });
    const of = (flame: string) => option(Object.keys(saw).find((letter) => saw[letter]?.flame === flame) as string);
    await expect(of("jumping")).toContainText("not safe");
    await expect(of("small")).toContainText("pool too small");
    await expect(of("steady")).toContainText("pool right");
    await expect(of("steady")).toContainText(/4\.25 g/);
    // Every verdict opens to the looks it rests on.
    await of("jumping")
      .getByText(/with its checks/)
      .first()
      .click();
    await expect(of("jumping").getByText("black soot").first()).toBeVisible();
    await of("steady").getByRole("button", { name: "Passed" }).click();
    await expect(of("steady")).toContainText("✓ passed");
    await of("jumping").getByRole("button", { name: "Failed" }).click();
    await expect(of("jumping")).toContainText("✕ failed");
    await expect(page.getByText(/Test data is not a safety certificate/).first()).toBeVisible();
    await tab(page, "Pictures");
    await expect(page.getByRole("img", { name: "Melt pool against time, 4 test candles" })).toBeVisible();
    // The jars that were burned are test candles of their batch, and the table of the workshop's own wicks has what passed.
    await open(page, "/burn/wicks?state=passed");
    await expect(page.getByRole("row").filter({ hasText: "flat-braid cotton 6" }).first()).toContainText("passed");
    await open(page, `/products/${TUMBLER}`);
    await expect(page.getByRole("region", { name: "Wick test" })).toContainText(/tested/i);
  });

  testOnNewDevice("a half-filled jar that does well is followed by a full one, and never counts as a full pass", ALONE, async ({ page, workshop }) => {
    const product = demoId(0x26, 6);
    await open(page, `/burn/new?product=${product}`);
    await page.getByRole("button", { name: "nothing, one test" }).click();
    await page.getByRole("checkbox", { name: /Half-filled/ }).check();
    await page.getByLabel("Test candles of each").fill("1");
    await page.getByLabel("Checks of each session").fill("4");
    const half = await begun(page, workshop);
    const burn = async (path: string) => {
      passHours(24 * 30);
      for (let session = 0; session < 3; session++) {
        await open(page, path);
        await light(page, "A1", String(320 - session * 16));
        passHours(4);
        await open(page, path);
        await look(page, "A1", { mm: 75, flame: "steady" });
        await page.getByRole("button", { name: "Save check", exact: true }).click();
        await putOut(page, "A1", String(304 - session * 16));
        passHours(14);
      }
      await open(page, `${path}?view=verdict`);
    };
    await burn(half);
    await expect(page.getByText("Test the full jar next.").first()).toBeVisible();
    await page.getByRole("button", { name: "Passed, half-filled" }).click();
    await expect(page.getByText(/never counts as a full pass: the product stays/)).toBeVisible();
    const next = page.getByRole("region", { name: "The next trial" }).getByRole("link", { name: "Create next trial" });
    const address = (await next.getAttribute("href")) as string;
    await open(page, `/products/${product}`);
    await expect(page.getByRole("region", { name: "Wick test" })).not.toContainText("Retest");

    await open(page, address);
    await expect(page.getByLabel("Name of the trial")).toHaveValue(/^Full jars of/);
    await expect(page.getByRole("checkbox", { name: /Half-filled/ })).not.toBeChecked();
    await page.getByLabel("Test candles of each").fill("1");
    const full = await begun(page, workshop);
    expect(full).not.toBe(half);
    await burn(full);
    await page.getByRole("button", { name: "Passed", exact: true }).click();
    await expect(page.getByText("✓ passed")).toBeVisible();
    await open(page, `/products/${product}`);
    await expect(page.getByRole("region", { name: "Wick test" })).toContainText("Retest");
  });

  testOnNewDevice("a look takes a few taps; a late one keeps its real time, and one that nobody made is said to be missed", async ({ page }) => {
    await open(page, `/burn/${BURNING}`);
    await expect(card(page, "A1")).toContainText("look in");
    await card(page, "A1").getByRole("button", { name: "Check A1" }).click();
    // Nothing seen is nothing recorded.
    await page.getByRole("button", { name: "Save check", exact: true }).click();
    await expect(page.getByText("Record at least one thing.")).toBeVisible();
    // On the drawing, from above: half way to the wall.
    const round = page.getByRole("img", { name: /^From above/ });
    const box = await round.boundingBox();
    if (!box) throw new Error("no drawing");
    await round.click({ position: { x: box.width / 2 + (box.width * 36) / 168, y: box.height / 2 } });
    await expect(page.getByRole("img", { name: /^From above: the pool is 3[789] mm wide/ })).toBeVisible();
    await page.getByRole("button", { name: "Width of the pool: more" }).click();
    await page.getByRole("group", { name: "Flame" }).getByRole("button", { name: "steady" }).click();
    await page.getByRole("button", { name: /^More:/ }).click();
    await page.getByLabel("Heat of the wall").fill("52");
    await page.getByLabel("When").fill("14:02");
    await page.getByRole("button", { name: "Save check", exact: true }).click();
    await expect(card(page, "A1")).toBeVisible();
    await tab(page, "Record");
    const entry = page.getByRole("region", { name: "Entries" }).getByRole("listitem").filter({ hasText: "flame steady, wall 52 °C" });
    await expect(entry).toHaveCount(1);
    await expect(entry).toContainText("14:02");
    // A session of the first trial that nobody looked at stands in its verdict.
    await open(page, `/burn/${demoId(0x3f, 1)}?view=verdict`);
    await page.getByRole("listitem", { name: "Variant A" }).getByText("A2: 3 sessions").click();
    await expect(page.getByText("180 min: check missed").first()).toBeVisible();
  });

  testOnNewDevice("what is put down without the network is kept on the phone and sent later", async ({ page, context }) => {
    await open(page, `/burn/${BURNING}`);
    await context.setOffline(true);
    await look(page, "B1", { mm: 60, flame: "steady" });
    await page.getByRole("button", { name: "Save check", exact: true }).click();
    await expect(card(page, "B1")).toBeVisible();
    await expect(page.getByText(/1 entry/).first()).toBeVisible();
    await tab(page, "Record");
    const entry = page.getByRole("region", { name: "Entries" }).getByRole("listitem").filter({ hasText: "B1: pool 60 mm" });
    await expect(entry).toHaveCount(1);
    await context.setOffline(false);
    await expect(page.getByText(/1 entry/)).toHaveCount(0);
    await open(page, `/burn/${BURNING}?view=record`);
    await expect(entry).toHaveCount(1);
  });
});

test("what is due is called by sound and by a message of the device, and somebody has to say that they are there", ALONE, async ({ page }) => {
  passHours(0.25);
  // The device's own ways of calling, written down instead of heard.
  await page.addInitScript(`
    window.heard = [];
    window.Notification = class { constructor(says) { window.heard.push(says); } static permission = "granted"; };
    window.AudioContext = class {
      currentTime = 0;
      destination = {};
      createGain() { return { gain: {}, connect: (to) => to }; }
      createOscillator() { return { frequency: {}, connect: (to) => to, start: () => window.heard.push("tone"), stop() {} }; }
    };
  `);
  await open(page, `/burn/${BURNING}`);
  const heard = () => page.evaluate<string[]>("window.heard");
  await expect
    .poll(heard)
    .toEqual(expect.arrayContaining(["tone", "Check A1: flat-braid cotton 6", "Check B2: square-braid cotton 8", "Is somebody with the burning candles?"]));
  const asked = page.getByRole("alert").filter({ hasText: "Is somebody with them?" });
  await expect(asked).toBeVisible();
  await page.getByRole("button", { name: "I am here" }).click();
  await expect(asked).toBeHidden();
  await expect(page.getByText("Never leave them alone.")).toBeVisible();
  // Each is called once.
  expect((await heard()).filter((text) => text.startsWith("Check A1"))).toHaveLength(1);
});

test("two noses smell the same jars under codes, and what they say is told once the codes are", async ({ page }) => {
  await open(page, `/burn/${BURNING}?view=throw`);
  const codes = ["K7", "M3", "R4", "T9", "V2", "X6"];
  const smell = async (scores: number[]) => {
    for (const [index, code] of codes.entries()) {
      await page.getByRole("group", { name: "Candle" }).getByRole("button", { name: code }).click();
      await page.getByRole("button", { name: `Score ${scores[index]} of 10` }).click();
      await expect(page.getByRole("group", { name: "Candle" }).getByRole("button", { name: `${code} ✓` })).toBeVisible();
    }
  };
  await smell([6, 7, 5, 6, 6, 7]);
  await page.getByRole("button", { name: /^Who is working/ }).click();
  await page.getByRole("menuitemradio", { name: "Brill" }).click();
  await expect(page.getByText(/^Score by Brill/)).toBeVisible();
  await smell([8, 9, 8, 8, 9, 9]);
  await expect(page.getByText("12 scores so far.")).toBeVisible();
  // Which is which is not to be seen yet.
  await expect(page.getByRole("region", { name: "Score one" }).getByText("cotton")).toHaveCount(0);
  await page.getByRole("button", { name: "Reveal the codes" }).click();
  const said = page.getByRole("region", { name: "Scores compared" });
  await expect(said.getByRole("listitem")).toHaveCount(3);
  await expect(said).toContainText(/Too few scores to tell|stronger|weaker/);
  await expect(said).toContainText("Adjusted for each person's own level");
});

test("test candles come off the rack too, and are out of what may be sold; a trial leaves as a file and comes into another workshop", async ({
  page,
  workshop,
}) => {
  await open(page, "/burn/new");
  await page.getByRole("button", { name: "use jars from the rack" }).click();
  const counts = page.getByRole("region", { name: "On the rack" }).getByRole("combobox");
  await counts.first().selectOption("2");
  await page.getByLabel("Name of the trial").fill("Two from the rack");
  await page.getByRole("button", { name: "Begin with 2 from the rack" }).click();
  await expect(page.getByRole("heading", { name: /Burn trial 3: Two from the rack/ })).toBeVisible();
  await expect(page.getByRole("listitem", { name: /^Test candle A/ })).toHaveCount(2);
  await card(page, "A2").getByRole("button", { name: "Light A2" }).click();
  await page.getByRole("button", { name: "The glass is cracked" }).click();
  await expect(card(page, "A2")).toContainText("the glass is cracked");
  await expect(card(page, "A2").getByRole("button", { name: "Light A2" })).toHaveCount(0);

  await open(page, `/burn/${demoId(0x3f, 1)}?view=record`);
  const [json] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Download JSON" }).click()]);
  const file = readFileSync(await json.path(), "utf8");
  expect(JSON.parse(file)).toMatchObject({ format: "hearth-jar/burn-record", trial: { number: 1 } });
  const csv = await (await page.request.get(`/api/workshops/${workshop}/trials/${demoId(0x3f, 1)}/record?as=csv`)).text();
  expect(csv.split("\r\n")[0]).toContain("test_candle,variant,session,lit_at");
  // A session that was burned on paper comes in with the same columns; what is here already is left out.
  const more = `${csv.split("\r\n")[0]}\r\n${csv.split("\r\n")[1]}\r\nA1,,4,2026-03-01T08:00:00Z,5,,,370,358,2026-03-01T12:00:00Z,protocol,,2026-03-01T11:00:00Z,,,62,,,steady,,none,none,,,,,,,,on paper\r\n`;
  await page.getByLabel(/A CSV file with the columns/).setInputFiles({ name: "paper.csv", mimeType: "text/csv", buffer: Buffer.from(more) });
  await expect(page.getByText(/were imported; then: This trial is closed/)).toBeVisible();
  await page.getByRole("button", { name: "Reopen the trial" }).click();
  await expect(page.getByRole("button", { name: "Close the trial" })).toBeVisible();
  await page.getByLabel(/A CSV file with the columns/).setInputFiles({ name: "paper-again.csv", mimeType: "text/csv", buffer: Buffer.from(more) });
  await expect(page.getByText("5 entries imported.")).toBeVisible();

  await emptyWorkshop(page, "Elsewhere");
  await open(page, "/records/import");
  await page.getByLabel(/as JSON/).setInputFiles({ name: "trial.json", mimeType: "application/json", buffer: Buffer.from(file) });
  await page.getByRole("button", { name: "Import record" }).click();
  await page.getByRole("link", { name: "Look at the trial" }).click();
  await expect(page.getByRole("heading", { name: /Burn trial 1: Which wick size/ })).toBeVisible();
});

test("a trial is found by its name, and designed from a formula in a vessel without any product", async ({ page }) => {
  await open(page, "/burn/new");
  await choose(page, "Product", "none");
  await expect(page.getByRole("combobox", { name: "Vessel" })).toBeVisible();
  await choose(page, "Vessel", "wide bowl");
  // A wide vessel takes several wicks, each for its share.
  await expect(page.getByRole("region", { name: "Variants" })).toContainText(/each for its share|No wick on the shelf/);
  await page.getByLabel("Checks of each session").fill("4 2");
  await page.getByLabel("Checks of each session").blur();
  await expect(page.getByText(/Checks must be in order/)).toBeVisible();
  await page.getByRole("button", { name: "Find" }).click();
  await page.getByRole("combobox", { name: "Find" }).fill("Which wick kind");
  await page.getByRole("option", { name: /Which wick kind for Hay loft/ }).click();
  await expect(page.getByRole("heading", { name: /Burn trial 2/ })).toBeVisible();
});
