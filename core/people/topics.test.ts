import { expect, it } from "vitest";
import { AREAS } from "./roles";
import { concerns, topicsOfCommand, topicsOfEntry, topicsOfPage } from "./topics";

it("a page shows what commands of its own part change, and every page what waits", () => {
  for (const area of AREAS) {
    const shown = topicsOfPage(area === "today" ? "/" : `/${area}`);
    expect(shown, area).toContain("waiting");
    const topics = topicsOfCommand(area);
    expect(concerns(topics ? { topics } : {}, shown), area).toBe(true);
  }
});

it("a reading of a pot is drawn on the bench and today, and nowhere else; the words of the trade change by nothing", () => {
  const reading = { topics: topicsOfEntry("batch", true, false, false) };
  const drawn = AREAS.filter((area) => concerns(reading, topicsOfPage(area === "today" ? "/" : `/${area}`)));
  expect(drawn).toEqual(["today", "bench"]);
  for (const area of AREAS) {
    const topics = topicsOfCommand(area)?.filter((topic) => topic !== "waiting");
    if (topics) expect(concerns({ topics }, topicsOfPage("/words")), area).toBe(false);
  }
});

it("a batch that goes from the bench to the rack is told to both, to what waits, and to the stock where it drew", () => {
  const topics = topicsOfEntry("batch", true, true, true);
  for (const page of ["/bench", "/rack", "/inspect", "/records", "/shelf", "/words"]) expect(concerns({ topics }, topicsOfPage(page)), page).toBe(true);
  expect(concerns({ topics }, topicsOfPage("/formulas/new"))).toBe(true);
  expect(concerns({ topics: topicsOfEntry("trial", false, false, false) }, topicsOfPage("/bench"))).toBe(false);
  expect(concerns({}, topicsOfPage("/words"))).toBe(true);
});
