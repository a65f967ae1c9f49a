import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";

const SERVER = new URL(".", import.meta.url).pathname;

/** Why a query may give less than all there is: it goes on, page by page or when asked; it says how many there are; or it is a sample or a suggestion, and called so. */
const LIMITED: Record<string, string> = {
  "batches/batches.ts PAGE": "pots on the rack that wait for a later pour, before a page of the rest",
  "batches/molds.ts LEARNED_FROM": "the newest second pours tell what the next one takes",
  "batches/molds.ts MAX_AT_ONCE": "molds that are worked at once: a workshop has a handful",
  "batches/batches.ts PAGE + 1": "goes on: what is due later",
  "batches/batches.ts most": "goes on: older and newer batches",
  "batches/batches.ts TODAY_FIRST": "says how many more there are",
  "batches/typical-cooling.ts PLENTY": "a sample: the newest pots that cooling is learned from",
  "burn/trials.ts most": "goes on: older and newer trials",
  "events/aggregate-store.ts MAX_ENTRIES": "goes on: older entries are fetched",
  "findings/diagnosis.ts 5": "suggestions: later batches to compare with",
  "findings/diagnosis.ts MAX_FINE": "a sample: the newest batches that were fine",
  "findings/findings.ts MAX_LEVELS": "the levels with most batches; the page says so",
  "findings/pour-finding.ts MAX_FLAWS": "the flaws seen most often; the findings page has all",
  "formulas/formulas.ts PAGE": "goes on: pages",
  "http/period.ts MAX_CHANGES": "suggestions: the newest changes of formulas",
  "inventory/safety-data-sheets.ts LATELY": "suggestions: the newest batches of a formula",
  "inventory/shelf-page.ts most": "goes on: pages",
  "inventory/shelf.ts most": "suggestions: what was used lately; the rest is searched",
  "inventory/trace.ts show": "says how many there are, and shows all when asked",
  "products/products.ts PAGE": "goes on: pages",
  "sales/finished-goods.ts most": "the packs made lately",
  "sales/orders.ts most": "goes on: older and newer orders",
  "workshops/all-notes.ts most": "goes on: older and newer notes; a search says how many there are",
  "workshops/find.ts EACH": "suggestions: the search page has all",
  "workshops/onboarding.ts 20": "a scale and a thermometer are enough",
  "workshops/people.ts 20": "a few gaps of the audit log prove that there are some",
  "workshops/people.ts MAX_TRACED + 1": "goes on: older entries",
  "workshops/search-index.ts most": "suggestions: names; the rest is searched",
};

describe("what a query leaves out", () => {
  it("is listed here with its reason: nothing is cut silently", () => {
    const found = new Set<string>();
    for (const file of readdirSync(SERVER, { recursive: true, encoding: "utf8" })) {
      if (!file.endsWith(".ts") || file.endsWith(".test.ts")) continue;
      const text = readFileSync(`${SERVER}/${file}`, "utf8");
      for (const match of text.matchAll(/\.limit\(([^()]+)\)|\blimit (?:\$\{([^}]+)\}|(\d+))/g)) {
        const most = match[1] ?? match[2] ?? match[3] ?? "";
        // One row, or whether there are two, is no list.
        if (most !== "1" && most !== "2") found.add(`${file} ${most}`);
      }
    }
    expect([...found].sort()).toEqual(Object.keys(LIMITED).sort());
  });
});
