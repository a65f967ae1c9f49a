import { PROTOCOLS, protocol, TRIAL } from "@hearth/core";
import { expect, it } from "vitest";
import { aTestCandle, aTrial, aTrialPlan, burnOnce } from "../../../core/testing/trial";
import { readPaper } from "../../testing/read-paper";
import { burnSheetPdf } from "./burn-sheet";

const US = { locale: "en-US", massUnit: "oz", lengthUnit: "in", temperatureUnit: "F" } as const;
const METRIC = { locale: "en-GB", massUnit: "g", lengthUnit: "mm", temperatureUnit: "C" } as const;

it("a burn sheet says what is known of each test candle, and has an empty row for each check still to come", async () => {
  const plan = aTrialPlan([aTestCandle("A1"), aTestCandle("B1", { loadPpm: 100_000 })], {
    ownMarks: ["crackle", "drips"],
    protocol: protocol.parse(PROTOCOLS[0]),
  });
  const trial = aTrial(plan);
  burnOnce(trial, "A1", 0, 240, { 120: { flame: "steady" } });
  trial.add(300, { kind: "stopped", payload: { testCandle: "B1", why: "no more is needed" } });
  const { state } = TRIAL.of(trial.events);
  const read = async (units: typeof US | typeof METRIC, size: "a4" | "letter") => {
    const pdf = await burnSheetPdf({ number: 7, plan, state, day: "2026-03-02", address: "https://shed.example/w/x/burn/7" }, size, units);
    return readPaper(new Response(new Uint8Array(pdf)), true);
  };
  const { text, code } = await read(METRIC, "a4");
  const words = text.replace(/\s+/g, " ");
  expect(words).toContain("Trial 7: Which wick for the tapered jar");
  expect(words).toContain("wax: container soy");
  expect(words).toContain("load: 8 % of the wax");
  expect(words).toContain("crackle, of 10");
  // The first session is behind, and B1 is not burned any more.
  expect(words).not.toContain("Session 1:");
  for (let session = 2; session <= plan.protocol.sessions.length; session++) expect(words).toContain(`Session ${session}:`);
  expect(words).not.toContain("B1");
  expect(code).toBe("https://shed.example/w/x/burn/7");
  // A maker in inches and ounces finds no metric word on it.
  const american = (await read(US, "letter")).text;
  expect(american).toMatch(/pool, in/);
  expect(american).not.toMatch(/\bmm\b|°C| g /);
});
