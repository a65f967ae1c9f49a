import { PRESET_PROCESSES, planBatch, process, promptsOf, STEP_TYPES, writeDuration, writeRange } from "@hearth/core";
import { expect, it } from "vitest";
import { readPaper } from "../../testing/read-paper";
import { batchSheets } from "./sheets";

const id = (n: number) => `0190c0de-0000-7000-8000-${String(n).padStart(12, "0")}`;
const SCALE = { id: null, name: "bench scale", resolutionUg: 1_000_000 };

/** A plan of six cups by this process. */
function planBy(steps: unknown) {
  const spec = { waxes: [{ id: id(1), share: 1 }], fragrances: [{ id: id(2), share: 1 }], basis: "wax" as const, loadPpm: 80_000, notes: "" };
  const shelf = {
    waxes: [{ id: id(1), name: "soy", family: "soy", maxLoadPpm: 120_000 }],
    fragrances: [{ id: id(2), name: "rain", maxLoadPpm: null, flashPoint: null }],
  };
  const cup = {
    id: id(3),
    name: "cup",
    statedFillMg: 14_000,
    workingFillMg: 14_000,
    soldByWeight: true,
    innerTopUm: 38_000,
    innerBottomUm: 38_000,
    heightUm: 17_000,
  };
  return planBatch(
    {
      process: process.parse({ name: "All of it", reason: "", ceiling: 9_300, steps }),
      pots: [
        { name: "Rain", number: 1, spec },
        { name: "Heavy rain", number: 1, spec: { ...spec, loadPpm: 110_000 } },
      ],
      products: [0, 1].map((pot) => ({ ...cup, pot, count: 6, chosenWicks: null })),
      sparePpm: 0,
      scales: { wax: SCALE, oil: SCALE },
    },
    shelf,
  );
}

const sheetOf = async (steps: unknown) => {
  const sheet = { name: "Batch 7", day: "2026-03-14", plan: planBy(steps), address: "https://shed.example/w/x/bench/7", opens: "opens the batch" };
  const pdf = await batchSheets([sheet], "a4", { locale: "en-US", massUnit: "g", temperatureUnit: "C" }, new Map());
  return (await readPaper(new Response(new Uint8Array(pdf)))).text.replace(/\s+/g, " ");
};

it("a batch sheet has a line for each step of every type of step, with its range and its time", async () => {
  const ofOnePot = STEP_TYPES.filter((step) => step.kind !== "set" && step.kind !== "cure" && step.kind !== "split");
  const steps = ofOnePot.map((step) => ({
    id: step.kind,
    kind: step.kind,
    ...step.first,
    ...(step.kind === "pour" ? { share: 920_000 } : {}),
  }));
  const text = await sheetOf(steps);
  for (const prompt of promptsOf(planBy(steps)).filter((prompt) => !prompt.component)) {
    expect(text).toContain(prompt.name);
    if (prompt.range) expect(text).toContain(writeRange(prompt.range, "C"));
    if (prompt.seconds) expect(text).toContain(`${prompt.name} ${writeDuration(prompt.seconds)}`);
    if (prompt.least) expect(text).toContain(`at least ${writeDuration(prompt.least)}`);
  }
  // A pot that is divided: what is left of it is named before what is added.
  const divided = PRESET_PROCESSES.find((preset) => preset.id === "split-pot")?.steps;
  const rest = await sheetOf(divided);
  expect(rest).toContain("take the rest of pot 1");
  expect(rest).toMatch(/What is left of pot 1: about 8[\d.]+ g\. Add:/);
  expect(text).toContain("hold in the temper range 45–50 °C, at least 10 min");
});
