import { type BatchEvent, type BatchRecord, batchOf, type EventBody, PRESET_PROCESSES, planBatch, processFrom } from "@hearth/core";
import { v7 } from "uuid";
import { eventRow, rowOf } from "../data/batch-rows";
import { batchEvents, batches } from "../data/tables/batch";
import { formulas, formulaVersions } from "../data/tables/formula";
import { dyes, fragrances, instruments, vessels, waxes, wicks } from "../data/tables/shelf";
import { people } from "../data/tables/workshop";
import type { TestDatabase } from "./database";

/** When stored test batches were started. */
export const STARTED = "2026-02-02T09:00:00.000Z";

/** Puts a shelf, a formula and a started batch into a workshop: ten cups of 14 g at 10 % of the wax, and ten at 12 % from the rest of a divided melt. */
export async function storedBatch(
  { db }: Pick<TestDatabase, "db">,
  workshopId: string,
  number = 1,
  { dyed = false, divided = false }: { dyed?: boolean; divided?: boolean } = {},
) {
  const also = number === 1 ? "" : ` ${number}`;
  const ids = { wax: v7(), oil: v7(), vessel: v7(), probe: v7(), scale: v7(), person: v7(), dye: v7(), formula: v7(), version: v7(), batch: v7() };
  const process = processFrom(PRESET_PROCESSES[0] as (typeof PRESET_PROCESSES)[number]);
  const recipe = {
    waxes: [{ id: ids.wax, share: 1 }],
    fragrances: [{ id: ids.oil, share: 1 }],
    basis: "wax" as const,
    loadPpm: 100_000,
    notes: "",
    ...(dyed ? { dyes: [{ id: ids.dye, by: "drops" as const, amount: 6 }] } : {}),
  };
  const spec = { ...recipe, process };
  await db.insert(people).values({ workshopId, id: ids.person, name: "Test candle" });
  await db.insert(waxes).values({ workshopId, id: ids.wax, name: `test soy${also}`, family: "soy", maxLoadPpm: 120_000 });
  await db.insert(fragrances).values({ workshopId, id: ids.oil, name: `test rain${also}`, kind: "fragrance" });
  const measures = { innerTopUm: 38_000, innerBottomUm: 38_000, heightUm: 17_000 };
  await db.insert(vessels).values({
    workshopId,
    id: ids.vessel,
    name: `cup${also}`,
    material: "metal",
    statedFillMg: 14_000,
    workingFillMg: 14_000,
    soldByWeight: true,
    ...measures,
  });
  await db.insert(instruments).values([
    { workshopId, id: ids.probe, name: `probe${also}`, kind: "probe", correction: -50 },
    { workshopId, id: ids.scale, name: `bench scale${also}`, kind: "scale", resolutionUg: 1_000_000 },
  ]);
  if (dyed) await db.insert(dyes).values({ workshopId, id: ids.dye, name: `test rose${also}`, kind: "liquid", eachMg: 30 });
  await db.insert(formulas).values({ workshopId, id: ids.formula, name: "Test formula", updatedAt: STARTED });
  await db.insert(formulaVersions).values({ workshopId, id: ids.version, formulaId: ids.formula, number: 1, spec, createdAt: STARTED });
  const shelf = {
    waxes: [{ id: ids.wax, name: "test soy", family: "soy", maxLoadPpm: 120_000 }],
    fragrances: [{ id: ids.oil, name: "test rain", maxLoadPpm: null, flashPoint: null }],
    ...(dyed ? { dyes: [{ id: ids.dye, name: "test rose", kind: "liquid", eachMg: 30 }] } : {}),
  };
  const cup = { id: ids.vessel, name: "cup", statedFillMg: 14_000, workingFillMg: 14_000, soldByWeight: true, ...measures };
  const scale = { id: ids.scale, name: "bench scale", resolutionUg: 1_000_000 };
  const further = { name: "Test formula, further", number: 1, spec: { ...recipe, loadPpm: recipe.loadPpm + 20_000 } };
  const plan = planBatch(
    {
      process: divided ? processFrom(PRESET_PROCESSES.find((preset) => preset.id === "split-pot") as (typeof PRESET_PROCESSES)[number]) : process,
      pots: [{ name: "Test formula", number: 1, spec: recipe }, ...(divided ? [further] : [])],
      products: [{ ...cup, count: 10 }, ...(divided ? [{ ...cup, count: 10, pot: 1 }] : [])],
      ...{ sparePpm: 0, scales: { wax: scale, oil: scale } },
    },
    shelf,
  );
  const started: BatchEvent = {
    id: v7(),
    kind: "started",
    happenedAt: STARTED,
    arrivedAt: STARTED,
    personId: ids.person,
    instrumentId: null,
    corrects: null,
    payload: { plan },
  };
  await db.insert(batches).values({ workshopId, id: ids.batch, number, formulaVersionId: ids.version, ...rowOf(plan, batchOf([started]).state) });
  await db.insert(batchEvents).values(eventRow(workshopId, ids.batch, started));
  const sent = (body: EventBody, over: Partial<BatchEvent> = {}): BatchEvent => ({ ...started, id: v7(), ...body, ...over }) as BatchEvent;
  /** Puts a wick on the shelf, which the batch does not use. */
  const wick = async (): Promise<string> => {
    const id = v7();
    await db.insert(wicks).values({ workshopId, id, name: `flat braid ${id.slice(-6)}`, kind: "flat-braid cotton", series: "flat-braid cotton", size: "4" });
    return id;
  };
  return { ...ids, started, sent, newWick: wick };
}

/** A copy of a record that a test may spoil. */
export const spoiled = (record: BatchRecord, spoil: (copy: BatchRecord) => void): string => {
  const copy = structuredClone(record);
  spoil(copy);
  return JSON.stringify(copy);
};
