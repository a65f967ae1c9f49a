import {
  type BatchEvent,
  type BatchPlan,
  batchOf,
  type ChosenProduct,
  embedChoices,
  embedsOf,
  type FormulaSpec,
  fillPart,
  inUnit,
  materialsOf,
  moldAtHeight,
  notToBeFilled,
  notToBeLaidIn,
  ok,
  PRESET_PROCESSES,
  type Process,
  planBatch,
  potsOf,
  processFrom,
  type Result,
  readFormula,
  readPlan,
  reject,
  stopOf,
  wicksOf,
  withReserve,
} from "@hearth/core";
import { and, eq, inArray } from "drizzle-orm";
import { v7 } from "uuid";
import { z } from "zod";
import { eventRow, rowOf } from "@/data/batch-rows";
import type { Transaction } from "@/data/client";
import { batchEvents, batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { instruments, molds, vessels, wicks } from "@/data/tables/shelf";
import { listProcesses } from "@/server/formulas/processes";
import type { Actor } from "@/server/http/context";
import { readEmbeds } from "@/server/inventory/embeds";
import { readMaterials } from "@/server/inventory/shelf";
import { nextNumber } from "@/server/shared/next-number";
import { lockWorkshop } from "@/server/workshops/workshops";

/** What a batch is started from. */
export const batchWanted = z.object({
  /** Made where the button was pressed: pressing it twice starts one batch. */
  batchId: z.uuid(),
  /** One for each pot. */
  formulaVersionIds: z.array(z.uuid()).min(1).max(8),
  /** "formula", "own:<id>" or "ready:<id>". */
  process: z.string().max(80),
  products: z
    .array(
      z.object({
        id: z.uuid(),
        container: z.enum(["vessel", "mold"]),
        count: z.number().int().min(1).max(100_000),
        part: fillPart.nullable().default(null),
        wick: z.object({ id: z.uuid(), count: z.number().int().min(1).max(9) }).nullable(),
        /** What is laid into one piece. */
        embeds: embedChoices.default([]),
        /** The pot that it is poured from, where one melt is divided. */
        pot: z.number().int().min(0).max(7).optional(),
        /** How high a mold is filled, in micrometers; as high as usual where it is not said. */
        heightUm: z.number().int().min(5_000).max(1_000_000).optional(),
      }),
    )
    .min(1, "Choose at least one vessel and its count.")
    .max(200),
  sparePpm: z.number().int().min(0).max(1_000_000),
  spareMg: z.number().int().min(0).max(100_000_000).default(0),
  waxScale: z.uuid(),
  oilScale: z.uuid(),
  /** A weight of wax, or a total, in place of the vessels' fills. */
  start: z
    .union([z.object({ waxMg: z.number().int().positive() }), z.object({ totalMg: z.number().int().positive() })])
    .nullable()
    .default(null),
  /** What is kept back for the second pour, in millionths of the fill; as the process says where it is not said. */
  reservePpm: z.number().int().min(1_000).max(900_000).nullable().default(null),
  pitcherMg: z.number().int().min(1_000, "A pitcher holds at least {1 g|0.04 oz}.").nullable().default(null),
  /** When it was really begun, where it is logged late. */
  startedAt: z.iso.datetime().nullable().default(null),
  rehearsal: z.boolean().default(false),
});
export type BatchWanted = z.input<typeof batchWanted>;
type Wanted = z.output<typeof batchWanted>;

/** A rehearsal begins so long ago: by then the longest run from weighing to pouring is over. */
const REHEARSED_BEFORE_MS = 16 * 3_600_000;

/** The products wanted, looked up; a message where one is not there or must not be filled. */
async function productsOf(tx: Transaction, mine: string, request: Wanted): Promise<ChosenProduct[] | string> {
  const idsOf = (container: "vessel" | "mold") => request.products.filter((product) => product.container === container).map((product) => product.id);
  const v = await tx
    .select()
    .from(vessels)
    .where(and(eq(vessels.workshopId, mine), inArray(vessels.id, idsOf("vessel"))));
  const m = await tx
    .select()
    .from(molds)
    .where(and(eq(molds.workshopId, mine), inArray(molds.id, idsOf("mold"))));
  const wickIds = request.products.flatMap((product) => (product.wick ? [product.wick.id] : []));
  const w = await tx
    .select()
    .from(wicks)
    .where(and(eq(wicks.workshopId, mine), inArray(wicks.id, wickIds)));
  const e = await readEmbeds(
    tx,
    mine,
    request.products.flatMap((product) => product.embeds),
  );
  const out: ChosenProduct[] = [];
  for (const { id, container, count, part, wick, pot, heightUm, embeds: choices } of request.products) {
    const vessel = container === "vessel" ? v.find((item) => item.id === id) : undefined;
    const mold = container === "mold" ? m.find((item) => item.id === id) : undefined;
    const unfit = vessel ? notToBeFilled(vessel, wick !== null) : null;
    if (unfit) return unfit;
    const row = wick ? w.find((item) => item.id === wick.id) : null;
    if (wick && !row) return "A wick is no longer on the shelf. Choose again.";
    const chosenWicks = wick && row ? wicksOf(row, wick.count) : null;
    const laidIn = embedsOf(choices, e);
    if (laidIn.length < choices.length) return "Something to be laid in is no longer on the shelf. Choose again.";
    const [burns] = e.flatMap((row) => (choices.some((embed) => embed.id === row.id) ? (notToBeLaidIn(row) ?? []) : []));
    if (burns) return burns;
    if (vessel) out.push({ ...vessel, container: "vessel", count, part, chosenWicks, pot, embeds: laidIn });
    else if (mold)
      out.push({
        ...moldAtHeight({ ...mold, statedFillMg: mold.fillMg, workingFillMg: mold.fillMg }, heightUm ?? mold.heightUm),
        ...{ container: "mold", soldByWeight: false, count, part, chosenWicks, pot, embeds: laidIn },
      });
    else return "A vessel is no longer on the shelf. Choose again.";
  }
  return out;
}

interface Pot {
  name: string;
  formulaId: string;
  number: number;
  spec: FormulaSpec;
}

/**
 * Starts a batch within a transaction: works the amounts out on the server, freezes them with all they rest on, and records
 * the start. `potOf` changes what a formula says for this batch alone, `processOf` its process. @throws WeighOutError if the amounts cannot be worked out
 */
export async function startBatchIn(
  tx: Transaction,
  { workshop, person, now, notify }: Actor,
  request: Wanted,
  potOf: (pot: Pot, index: number) => Pot = (pot) => pot,
  processOf: (process: Process) => Process = (process) => process,
): Promise<Result<{ id: string; number: number; plan: BatchPlan }>> {
  const workshopId = workshop.id;
  await lockWorkshop(tx, workshopId);
  const [existing] = await tx
    .select({ id: batches.id, number: batches.number, plan: batches.plan })
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, request.batchId)));
  if (existing) return ok({ id: existing.id, number: existing.number, plan: readPlan(existing.plan) });
  const versions = await tx
    .select({ id: formulaVersions.id, formulaId: formulaVersions.formulaId, number: formulaVersions.number, spec: formulaVersions.spec, name: formulas.name })
    .from(formulaVersions)
    .innerJoin(formulas, and(eq(formulas.workshopId, formulaVersions.workshopId), eq(formulas.id, formulaVersions.formulaId)))
    .where(and(eq(formulaVersions.workshopId, workshopId), inArray(formulaVersions.id, request.formulaVersionIds)));
  const pots = request.formulaVersionIds.flatMap((id, index) => {
    const version = versions.find((version) => version.id === id);
    return version ? [potOf({ name: version.name, formulaId: version.formulaId, number: version.number, spec: readFormula(version.spec) }, index)] : [];
  });
  const [first] = pots;
  if (!first || pots.length !== request.formulaVersionIds.length) return reject("This formula is no longer in this workshop. Choose another.");
  const shelf = await readMaterials(tx, workshopId);
  for (const { spec } of pots) {
    const { waxes, fragrances, additives, dyes } = materialsOf(spec, shelf);
    if (waxes.length === 0) return reject("The formula's wax is not on this shelf.");
    if (fragrances.length + additives.length + dyes.length !== spec.fragrances.length + (spec.additives ?? []).length + (spec.dyes ?? []).length)
      return reject("A material of the formula is no longer on the shelf. Open the formula and choose again.");
  }
  const [from, id] = request.process.split(":");
  const ready = from === "ready" ? PRESET_PROCESSES.find((preset) => preset.id === id) : undefined;
  const own = from === "own" ? (await listProcesses(tx, workshopId)).find((process) => process.id === id) : undefined;
  const asked: Process | undefined = from === "formula" ? first.spec.process : ready ? inUnit(processFrom(ready), workshop.temperatureUnit) : own?.process;
  if (!asked) return reject("This process is no longer in this workshop. Choose another.", { process: ["Choose another."] });
  const process = processOf(request.reservePpm === null ? asked : withReserve(asked, request.reservePpm));
  if (pots.length !== potsOf(process.steps)) return reject(`This process uses ${potsOf(process.steps)} pots: choose a formula for each.`);
  const products = await productsOf(tx, workshopId, request);
  if (typeof products === "string") return reject(products, { products: [products] });
  // The shelf may have learnt of a low flash point since the formula was saved; wicks and process are known only here.
  const wicks = products.flatMap((product) => (product.chosenWicks ? [product.chosenWicks] : []));
  for (const { spec } of pots) {
    const stop = stopOf({ ...spec, wicks, process }, shelf, workshop.temperatureUnit);
    if (stop) return reject(stop.message);
  }
  const scales = await tx
    .select()
    .from(instruments)
    .where(and(eq(instruments.workshopId, workshopId), inArray(instruments.id, [request.waxScale, request.oilScale])));
  const scaleOf = (scaleId: string) => {
    const row = scales.find((scale) => scale.id === scaleId);
    return row?.resolutionUg ? { id: row.id, name: row.name, resolutionUg: row.resolutionUg, unit: row.scaleUnit, capacityMg: row.capacityMg } : null;
  };
  const [wax, oil] = [scaleOf(request.waxScale), scaleOf(request.oilScale)];
  if (!wax || !oil) return reject("The scale is no longer on the shelf, or it is not known what it reads to. Choose again.", { scale: ["Choose a scale."] });
  const { sparePpm, spareMg, start, pitcherMg } = request;
  const planned = planBatch({ process, pots, products, sparePpm, spareMg, start: start ?? undefined, pitcherMg, scales: { wax, oil } }, shelf);
  const plan: BatchPlan = request.rehearsal ? { ...planned, rehearsal: true } : planned;
  const event = {
    id: v7(),
    kind: "started",
    // A rehearsal goes faster than the clock, and is not to come into what is still to be.
    happenedAt: request.rehearsal ? new Date(Date.parse(now) - REHEARSED_BEFORE_MS).toISOString() : (request.startedAt ?? now),
    arrivedAt: now,
    personId: person?.id ?? null,
    instrumentId: null,
    corrects: null,
    payload: { plan },
  } as BatchEvent;
  const number = await nextNumber(tx, workshopId);
  const { state } = batchOf([event]);
  await tx.insert(batches).values({
    workshopId: workshopId,
    id: request.batchId,
    number,
    formulaVersionId: request.formulaVersionIds[0] as string,
    drawsStock: !request.rehearsal,
    ...rowOf(plan, state),
  });
  await tx.insert(batchEvents).values(eventRow(workshopId, request.batchId, event));
  notify?.({ batch: request.batchId, topics: ["bench", "plan", "stock", "waiting"] });
  return ok({ id: request.batchId, number, plan });
}
