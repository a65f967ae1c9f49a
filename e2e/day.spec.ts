import { expect, open, test } from "./support";

test("a day at the pots: what is to be made becomes pots and a timetable in which no two need the same hands at once", async ({ page }) => {
  await open(page, "/plan/day");
  await expect(page.getByText("Type how many of each to see the schedule.")).toBeVisible();
  const count = (name: string) => page.getByRole("textbox", { name });
  await count("Rain on slate, squat tumbler").fill("12");
  await count("Hay loft, squat tumbler").fill("8");
  await count("Quince and smoke, narrow tin").fill("10");
  // 12 × 176 g with 5 % spare do not go into one pitcher of 1.5 kg; the other two need one each (8 × 176 g × 1.05 = 1.48 kg).
  const day = page.getByRole("region", { name: "Schedule" });
  await expect(day.getByRole("heading", { name: "4 pots" })).toBeVisible();
  await expect(page.getByText("Rain on slate, tumbler, 2 of 2").first()).toBeVisible();
  const picture = day.getByRole("img", { name: /^The day by pot\. / });
  await expect(picture).toBeVisible();
  await expect(page.getByText("✓ proved: no schedule ends sooner").or(page.getByText(/none can end before/))).toBeVisible();

  /** What the people do, as the page says it: from, to, in minutes of the day. */
  const work = async () => {
    const steps = page.getByRole("region", { name: "Minute by minute" }).getByRole("list").first().getByRole("listitem");
    await expect(steps.first()).toBeVisible();
    const rows = await steps.allTextContents();
    const minutes = (text: string) => {
      const [hour = 0, minute = 0] = text.split(":").map(Number);
      return hour * 60 + minute;
    };
    return rows
      .map((row) => row.replaceAll("\n", " "))
      .filter((row) => !row.includes("put on the heat") && !row.includes("before the day begins"))
      .map((row) => {
        const [, from = "", to = ""] = /(\d\d:\d\d)[–\s]+(\d\d:\d\d)/.exec(row) ?? [];
        return { from: minutes(from), to: minutes(to), row };
      })
      .sort((a, b) => a.from - b.from);
  };
  await expect(page.getByRole("button", { name: "Stop and keep this" })).toBeHidden();
  const alone = await work();
  expect(alone.length).toBeGreaterThanOrEqual(12);
  expect(alone[0]?.from).toBe(9 * 60);
  for (const [index, item] of alone.entries()) expect(item.from, item.row).toBeGreaterThanOrEqual(alone[index - 1]?.to ?? 0);

  // A burner less: the day becomes no shorter, and begins when it is told to.
  await page.getByLabel("Burners").fill("1");
  await page.getByLabel("Start at").fill("2 pm");
  await expect.poll(async () => (await work())[0]?.from).toBe(14 * 60);
  await expect(page.getByRole("button", { name: "Stop and keep this" })).toBeHidden();
  const fewer = await work();
  const length = (all: typeof fewer) => Math.max(...all.map((item) => item.to)) - (all[0]?.from ?? 0);
  expect(length(fewer)).toBeGreaterThanOrEqual(length(alone));
  await page.getByLabel("Start at").fill("half past");
  await page.getByLabel("Burners").focus();
  await expect(page.getByText("Write a time of the day, like 9:00 or 2 pm.")).toBeVisible();

  // Wanted in four weeks, in five days, tomorrow: soy cures four days at the least and two weeks at best (the demo's soy).
  const pot = page
    .getByRole("listitem")
    .filter({ hasText: "12 × Rain" })
    .or(page.getByRole("listitem").filter({ hasText: "6 × Rain on slate, squat tumbler" }))
    .first();
  await page.getByLabel("Start at").fill("9");
  for (const [day, told] of [
    ["11 Apr", "✓ fully cured: may be sold once tested, from"],
    ["20 Mar", "short of the recommended cure; the minimum is kept"],
    ["15 Mar", "late even with the minimum cure: it had to be poured by"],
  ] as const) {
    await page.getByLabel("Due").fill(day);
    await expect(pot).toContainText(told);
  }
  await page.getByLabel("Due").fill("1 Mar 2026");
  await page.getByLabel("Burners").focus();
  await expect(page.getByText("That day is in the past.")).toBeVisible();

  // The day is kept as it was left.
  await page.getByLabel("Start at").fill("10");
  await expect(page.getByText("✓ kept")).toBeVisible();
  await open(page, "/");
  await page.keyboard.press("/");
  await page.keyboard.type("day sched");
  await page.getByRole("option", { name: /Day schedule/ }).click();
  await expect(count("Hay loft, squat tumbler")).toHaveValue("8");
  await expect(page.getByLabel("Start at")).toHaveValue("10:00");
  await expect(day.getByRole("heading", { name: "4 pots" })).toBeVisible();
  // And goes on from there: what is typed now counts, not what was kept.
  await count("Hay loft, squat tumbler").fill("16");
  await expect(day.getByRole("heading", { name: "5 pots" })).toBeVisible();
});
