import { describe, expect, it } from "vitest";
import { planBatch } from "../batch/planning";
import { cautionsOnEmbed, EMBED_MATERIALS, notToBeLaidIn } from "../materials/cautions";
import { PRESET_PROCESSES, processFrom } from "../process/presets/ready";
import { fillsProduct, isDivided, isPouring, potsOf, poursOf, restOf } from "../process/process";
import { process as processSchema } from "../process/schema";
import { anId, GRAMS, presetProcess } from "../testing/batch";
import { cubicMmOf } from "../units/density";
import { billOf, containerLines, gathered } from "./bill";
import { displacedMg, embedsOf, writeEmbeds } from "./embeds";
import { DEFAULT_WAX_DENSITY } from "./parts";

const [wax, oil, shell, sand] = [anId(), anId(), anId(), anId()];
const shelf = {
  waxes: [{ id: wax, name: "clear gel", family: "gel", maxLoadPpm: 200_000 }],
  fragrances: [{ id: oil, name: "rain", maxLoadPpm: null, flashPoint: null }],
};
const onShelf = [
  { id: shell, name: "small shell", volumeUl: 5_000 },
  { id: sand, name: "sand", volumeUl: 20_000 },
];
const glass = {
  ...{ id: anId(), name: "glass", statedFillMg: 200_000, workingFillMg: 200_000, soldByWeight: false },
  ...{ innerTopUm: 78_000, innerBottomUm: 78_000, heightUm: 70_000 },
};
const planOf = (id: string, choices: { id: string; count: number }[], count = 3) => {
  const process = presetProcess(id);
  const specOf = (pot: number) => ({
    ...{ waxes: [{ id: wax, share: 1 }], fragrances: [{ id: oil, share: 1 }], basis: "wax" as const, notes: "" },
    loadPpm: 30_000 + (restOf(process.steps, pot) === undefined ? 0 : 10_000 * pot),
  });
  const many = isDivided(process.steps) ? potsOf(process.steps) : 1;
  return planBatch(
    {
      process,
      pots: Array.from({ length: potsOf(process.steps) }, (_, pot) => ({ name: "Test", number: 1, spec: specOf(pot) })),
      products: Array.from({ length: many }, (_, pot) => ({ ...glass, pot, count, embeds: embedsOf(choices, onShelf) })),
      ...{ sparePpm: 0, scales: GRAMS },
    },
    shelf,
  );
};

describe("what is laid into a candle", () => {
  it("takes its volume off the fill: 4 shells of 5 ml are 20 ml, 18 g of wax at 0.9 g/ml", () => {
    // By hand: 20 ml × 0.9 g/ml = 18 g; 200 g less 18 g.
    expect(displacedMg(embedsOf([{ id: shell, count: 4 }], onShelf))).toBe(18_000);
    const plan = planOf("gel", [{ id: shell, count: 4 }]);
    expect(plan.products[0]).toMatchObject({ fillMg: 182_000, statedFillMg: 182_000, embeds: [{ embedId: shell, count: 4 }] });
    // All that is poured is the wax of three glasses.
    expect(plan.pots[0]?.components.reduce((sum, part) => sum + part.mg, 0)).toBe(3 * 182_000);
  });

  it("fills no more than there is room for, whatever is laid in: wax and embeds together are the volume of the fill", () => {
    for (let shells = 1; shells <= 40; shells++) {
      const choices = [
        { id: shell, count: shells },
        { id: sand, count: 1 },
      ];
      const volume = (shells * 5 + 20) * 1_000;
      const room = cubicMmOf(glass.workingFillMg, DEFAULT_WAX_DENSITY);
      if (volume >= room) {
        expect(() => planOf("gel", choices)).toThrow(/leave no room for wax in glass: lay in less/);
        continue;
      }
      const poured = cubicMmOf(planOf("gel", choices).products[0]?.fillMg ?? 0, DEFAULT_WAX_DENSITY);
      expect(Math.abs(poured + volume - room)).toBeLessThan(2);
    }
  });

  it("is drawn from stock by the piece", () => {
    const choices = [
      { id: shell, count: 4 },
      { id: sand, count: 1 },
    ];
    const bill = gathered(billOf(planOf("gel", choices)));
    expect(bill.filter((line) => line.kind === "embed")).toEqual([
      expect.objectContaining({ materialId: shell, amount: 12, counted: true }),
      expect.objectContaining({ materialId: sand, amount: 3, counted: true }),
    ]);
  });

  it("is drawn with the layer that it is laid into, which takes no other container", () => {
    const [product] = planOf("gel", [{ id: shell, count: 4 }]).products;
    if (!product) throw new Error("no product");
    const upper = containerLines({ ...product, part: { kind: "layer", number: 2, of: 2 } }, 3);
    expect(upper).toEqual([expect.objectContaining({ materialId: shell, amount: 12, kind: "embed" })]);
  });

  it.each(PRESET_PROCESSES.filter((preset) => preset.makes !== "layers").map((preset) => [preset.name, preset] as const))(
    "is said as a step before the pour that fills it: %s",
    (_name, preset) => {
      const plan = planOf(preset.id, [
        { id: shell, count: 4 },
        { id: sand, count: 1 },
      ]);
      expect(processSchema.safeParse(plan.process).error?.issues ?? []).toEqual([]);
      const { steps } = plan.process;
      plan.products.forEach((_product, index) => {
        const pour = steps.findIndex((step) => isPouring(step) && fillsProduct(step, index));
        const said = steps.findIndex((step) => step.kind === "embed" && (step.pot ?? 0) === (steps[pour]?.pot ?? 0));
        expect(said).toBeGreaterThanOrEqual(0);
        expect(said).toBeLessThan(pour);
        expect(steps[said]).toMatchObject({ what: "4 × small shell, 1 × sand" });
      });
      // Nothing is said of it where nothing is laid in, but by a process that says so itself.
      expect(planOf(preset.id, []).process.steps.filter((step) => step.kind === "embed")).toEqual(
        processFrom(preset).steps.filter((step) => step.kind === "embed"),
      );
      expect(poursOf(steps).length).toBe(poursOf(preset.steps).length);
    },
  );

  it("is left out of a plan where it is no longer on the shelf", () => {
    expect(embedsOf([{ id: anId(), count: 1 }], onShelf)).toEqual([]);
    expect(embedsOf(null, onShelf)).toEqual([]);
    expect(writeEmbeds(embedsOf([{ id: shell, count: 2 }], onShelf))).toBe("2 × small shell");
  });
});

describe("what burns", () => {
  it("is refused by its material, or by a name that says what it is, and every material has its caution", () => {
    for (const material of EMBED_MATERIALS) expect(cautionsOnEmbed({ name: "piece", material }).length, material).toBeGreaterThan(0);
    const refused = EMBED_MATERIALS.filter((material) => notToBeLaidIn({ name: "piece", material }) !== null);
    expect(refused).toEqual(["plastic", "wood", "dried plant", "paper", "not known"]);
    expect(notToBeLaidIn({ name: "dried rose petals", material: "shell" })).toMatch(/catch fire/);
    expect(notToBeLaidIn({ name: "small shell", material: "shell" })).toBeNull();
  });
});
