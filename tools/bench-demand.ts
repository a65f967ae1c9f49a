import {
  type DemandLine,
  type DemandProduct,
  guessMapping,
  PRESET_PROCESSES,
  planDemand,
  planningSettings,
  processFrom,
  readSheet,
  whatIf,
} from "@hearth/core";
import { v7 } from "uuid";
import { parseText } from "../web/forms/file-parse";

const LINES = 1_000;
const PRODUCTS = 120;
const NOW = { now: "2026-03-02T07:00:00.000Z", zone: "Europe/Berlin" };
const median = (of: number[]): number => [...of].sort((a, b) => a - b)[of.length >> 1] ?? 0;

/** What 1,000 lines of demand cost to become pots with their days, against what it costs to read them from a spreadsheet. */
export function benchDemand(): void {
  const products = Array.from({ length: PRODUCTS }, (_, n): DemandProduct => {
    const preset = PRESET_PROCESSES[n % PRESET_PROCESSES.length] as (typeof PRESET_PROCESSES)[number];
    return {
      id: v7(),
      name: `scent ${n >> 1} in vessel ${n % 2}`,
      formulaId: `formula ${n >> 1}`,
      formulaName: `scent ${n >> 1}`,
      process: processFrom(preset),
      components: 3,
      fillMg: 60_000 + 20_000 * (n % 7),
      tested: true,
      wicked: true,
    };
  });
  const day = (n: number) => new Date(Date.UTC(2026, 2, 20 + ((n * 7) % 120))).toISOString().slice(0, 10);
  const text = [
    "product,pieces,wanted by,for",
    ...Array.from({ length: LINES }, (_, n) => `${products[(n * 37) % PRODUCTS]?.name},${1 + (n % 12)},${n % 9 === 0 ? "" : day(n)},order ${n}`),
  ].join("\n");
  const context = { waxes: [], currency: "EUR", names: { formula: [], container: [], wick: [], material: [], product: products } };
  const settings = planningSettings.parse({ hands: 2, burners: 4, table: 200 });
  const read = () => {
    const parsed = parseText(text);
    if (!parsed.ok) throw new Error(parsed.message);
    return readSheet("wanted", parsed.sheet, guessMapping("wanted", parsed.sheet.heads), [], context);
  };
  const lines = read().map(
    ({ values }, n): DemandLine => ({
      id: `l${n}`,
      productId: String(values.productId),
      count: Number(values.count),
      wantedOn: (values.wantedOn as string | null) ?? null,
      note: "",
    }),
  );
  const times: { reading: number[]; planning: number[] } = { reading: [], planning: [] };
  let demandPlan = planDemand(lines, products, settings, NOW);
  for (let turn = 0; turn < 15; turn++) {
    const begin = performance.now();
    read();
    const middle = performance.now();
    demandPlan = planDemand(lines, products, settings, NOW);
    times.reading.push(middle - begin);
    times.planning.push(performance.now() - middle);
  }
  const [reading, planning] = [median(times.reading.slice(3)), median(times.planning.slice(3))];
  console.log(
    `${LINES} lines of demand: read in ${reading.toFixed(1)} ms, ${demandPlan.pots.length} pots with their days in ${planning.toFixed(1)} ms, ratio ${(planning / reading).toFixed(2)} (at most 3)`,
  );
  const from = performance.now();
  const few = { ...settings, hands: 1 };
  const { would } = whatIf(lines, products, few, NOW, planDemand(lines, products, few, NOW));
  console.log(`what one thing more or less is worth: planned ${would.length} times in ${(performance.now() - from).toFixed(0)} ms`);
}
