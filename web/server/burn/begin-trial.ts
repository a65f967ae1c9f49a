import {
  blindCodes,
  type EmbedChoice,
  type FormulaSpec,
  ladderProcess,
  loadOnBasis,
  ok,
  protocol,
  type Result,
  reject,
  type TestCandle,
  TRIAL,
  type TrialEvent,
  type TrialPlan,
  trialPlan,
  VARIED,
} from "@hearth/core";
import { and, eq, max, sql } from "drizzle-orm";
import { v7 } from "uuid";
import { z } from "zod";
import type { Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { instruments, vessels } from "@/data/tables/shelf";
import { trialEvents, trials } from "@/data/tables/trial";
import { trialEventRow, trialRow, writeBurns } from "@/data/trial-rows";
import { startBatchIn } from "@/server/batches/start-batch";
import { systemEntry } from "@/server/events/append";
import { readBatchState } from "@/server/events/read-events";
import type { Actor } from "@/server/http/context";
import { readMaterialNames } from "@/server/inventory/material-names";
import { readProduct } from "@/server/products/products";
import { lockWorkshop } from "@/server/workshops/workshops";
import { asTestCandles, fromBatch } from "./test-candles";

const many = z.number().int().min(1, "At least one test candle.").max(10, "At most ten test candles of one variant.");
/** What one variant of a trial changes of the formula. */
const change = z.object({
  loadPpm: z.number().int().min(0).max(1_000_000).optional().describe("millionths of the wax"),
  waxId: z.uuid().optional(),
  fragranceId: z.uuid().optional(),
  /** A step of a ladder: the share of a second wax, or the dose of an additive, in percent; or drops of a dye to a pound. */
  ladder: z.object({ kind: z.enum(["blend", "additive", "dye"]), id: z.uuid(), amount: z.number().min(0).max(100) }).optional(),
});
const made = z.object({
  from: z.literal("make"),
  formulaVersionId: z.uuid(),
  container: z.enum(["vessel", "mold"]),
  containerId: z.uuid(),
  wick: z.object({ id: z.uuid(), count: z.number().int().min(1).max(9) }).nullable(),
  testCandles: many,
  half: z.boolean(),
  change,
});
const racked = z.object({ from: z.literal("rack"), batchId: z.uuid(), product: z.string().min(1).max(60), testCandles: many });
/** What a trial is begun from. */
export const trialWanted = z.object({
  /** Made where the button was pressed: pressing it twice begins one trial. */
  trialId: z.uuid(),
  name: z.string().trim().min(1, "Enter a name for the trial.").max(120),
  varies: z.enum(VARIED).nullable(),
  protocol,
  productId: z.uuid().nullable(),
  /** All steps of a ladder from one melt: each is poured in turn, and the rest is dosed further. */
  oneMelt: z.boolean().default(false),
  ownMarks: z.array(z.string().trim().min(1).max(40)).max(8, "At most eight marks of your own.").default([]),
  after: z.object({ id: z.uuid(), name: z.string().max(160), why: z.string().max(600) }).nullable(),
  variants: z
    .array(z.discriminatedUnion("from", [made, racked]))
    .min(1, "Choose at least one to burn.")
    .max(12, "At most 12 variants in one trial."),
});
export type TrialWanted = z.output<typeof trialWanted>;
type Made = z.output<typeof made>;

/** Returns a formula as one variant wants it. */
const changed = (spec: FormulaSpec, to: Made["change"]): FormulaSpec => ({
  ...spec,
  ...(to.loadPpm === undefined ? {} : { loadPpm: Math.round(loadOnBasis(to.loadPpm, "wax", spec.basis)) }),
  ...(to.waxId === undefined ? {} : { waxes: [{ id: to.waxId, share: 1 }] }),
  ...(to.fragranceId === undefined ? {} : { fragrances: [{ id: to.fragranceId, share: 1 }] }),
  ...(to.ladder === undefined ? {} : onLadder(spec, to.ladder)),
});
/** Returns what a step of a ladder makes of a recipe: a second wax in place of as much of the others, or a dose of something. */
function onLadder(spec: FormulaSpec, { kind, id, amount }: NonNullable<Made["change"]["ladder"]>): Partial<FormulaSpec> {
  if (kind === "additive")
    return { additives: [...(spec.additives ?? []).filter((part) => part.id !== id), ...(amount > 0 ? [{ id, ppm: Math.round(amount * 10_000) }] : [])] };
  if (kind === "dye") return { dyes: [...(spec.dyes ?? []).filter((part) => part.id !== id), ...(amount > 0 ? [{ id, by: "drops" as const, amount }] : [])] };
  const others = spec.waxes.filter((part) => part.id !== id);
  const whole = others.reduce((sum, part) => sum + part.share, 0) || 1;
  const shares = others.map((part) => ({ id: part.id, share: (part.share / whole) * (100 - amount) })).filter((part) => part.share > 0);
  return { waxes: [...shares, ...(amount > 0 ? [{ id, share: amount }] : [])] };
}
const saysChange = ({ loadPpm, ladder, waxId, fragranceId }: Made["change"]) =>
  loadPpm !== undefined
    ? ` (${loadPpm / 10_000} %)`
    : ladder
      ? ` (${ladder.amount}${ladder.kind === "dye" ? " drops" : " %"})`
      : waxId || fragranceId
        ? " (trial)"
        : "";

/** The amount of a variant on its ladder, by which the parts of one melt are poured in turn. */
const amountOf = (variant: Made): number => variant.change.ladder?.amount ?? variant.change.loadPpm ?? 0;

const LETTERS = "ABCDEFGHIJKL";
type Part = Omit<TestCandle, "key" | "variant" | "code">;

/** Takes as many of a vessel's test jars as there are for the test candles of a trial: chipped ones are used before those for sale. */
async function useTestJars(tx: Transaction, workshopId: string, vesselId: string, many: number): Promise<void> {
  await tx
    .update(vessels)
    .set({ testJars: sql`greatest(0, ${vessels.testJars} - ${many})` })
    .where(and(eq(vessels.workshopId, workshopId), eq(vessels.id, vesselId)));
}

/** Pours the test candles that are to be made: all of one formula in one batch. Which product of which batch each variant became, or why not. */
async function pour(
  tx: Transaction,
  context: Actor,
  variants: readonly TrialWanted["variants"][number][],
  isOneMelt: boolean,
  embedsOfVariant: (variant: Made) => EmbedChoice[],
): Promise<Result<Map<number, Part>>> {
  const out = new Map<number, Part>();
  const groups = new Map<string, { at: number; variant: Made }[]>();
  for (const [index, variant] of variants.entries()) {
    if (variant.from !== "make") continue;
    const key = isOneMelt ? variant.formulaVersionId : JSON.stringify([variant.formulaVersionId, variant.change]);
    groups.set(key, [...(groups.get(key) ?? []), { at: index, variant }]);
  }
  if (groups.size === 0) return ok(out);
  const scales = await tx
    .select()
    .from(instruments)
    .where(and(eq(instruments.workshopId, context.workshop.id), eq(instruments.kind, "scale"), eq(instruments.archived, false)));
  const usable = scales.filter((scale) => scale.resolutionUg);
  // The one that takes most for the wax, the finest for the oil.
  const wax = [...usable].sort((a, b) => (b.capacityMg ?? Number.POSITIVE_INFINITY) - (a.capacityMg ?? Number.POSITIVE_INFINITY))[0];
  const oil = [...usable].sort((a, b) => (a.resolutionUg ?? 0) - (b.resolutionUg ?? 0))[0];
  if (!wax || !oil) return reject("There is no scale on the shelf. Add yours, with what it reads to: amounts are rounded to it.");
  for (const unsorted of groups.values()) {
    // One melt is dosed further from part to part, so that the least comes first.
    const group = isOneMelt ? [...unsorted].sort((a, b) => amountOf(a.variant) - amountOf(b.variant)) : unsorted;
    const first = group[0]?.variant;
    if (!first) continue;
    const started = await startBatchIn(
      tx,
      context,
      {
        batchId: v7(),
        formulaVersionIds: isOneMelt ? group.map(({ variant }) => variant.formulaVersionId) : [first.formulaVersionId],
        process: "formula",
        products: group.map(({ variant }, pot) => ({
          id: variant.containerId,
          container: variant.container,
          count: variant.testCandles,
          part: variant.half ? { kind: "half" } : null,
          wick: variant.wick,
          embeds: embedsOfVariant(variant),
          ...(isOneMelt ? { pot } : {}),
        })),
        sparePpm: 50_000,
        spareMg: 0,
        waxScale: wax.id,
        oilScale: oil.id,
        start: null,
        pitcherMg: null,
        reservePpm: null,
        startedAt: null,
        rehearsal: false,
      },
      (pot, index) => {
        const { change: to } = (isOneMelt ? group[index]?.variant : first) ?? first;
        return { ...pot, name: `${pot.name}${saysChange(to)}`, spec: changed(pot.spec, to) };
      },
      (process) => (isOneMelt ? ladderProcess(process, group.length) : process),
    );
    if (!started.ok) return started;
    for (const { variant } of group) if (variant.container === "vessel") await useTestJars(tx, context.workshop.id, variant.containerId, variant.testCandles);
    const { id, number, plan } = started.value;
    for (const [position, { at }] of group.entries()) {
      const product = plan.products[position];
      const part = product && fromBatch(plan, product.key);
      if (product && part) out.set(at, { ...part, batch: { id, number, product: product.key, taken: false }, productId: null });
    }
  }
  return ok(out);
}

/** Takes jars that stand on the rack. */
async function take(
  tx: Transaction,
  context: Actor,
  variant: Extract<TrialWanted["variants"][number], { from: "rack" }>,
  trial: number,
): Promise<Result<Part>> {
  const [row] = await tx
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, context.workshop.id), eq(batches.id, variant.batchId)));
  if (!row) return reject("That batch is no longer in this workshop. Choose again.");
  const { plan, state } = await readBatchState(tx, row);
  const part = fromBatch(plan, variant.product);
  if (!part) return reject("That batch has no such product. Choose again.");
  if (!part.wick) return reject(`Batch ${row.number} was planned without a wick for ${part.vessel}, so it cannot be burn-tested. Pour test candles with one.`);
  const cracked = state.flaws
    .filter(({ flaw }) => flaw.product === variant.product && flaw.defect === "cracked_glass")
    .reduce((sum, { flaw }) => sum + flaw.jars, 0);
  const sound = plan.products.reduce((sum, item) => (item.key === variant.product ? sum + item.count : sum), 0) - cracked;
  if (variant.testCandles > sound) return reject(`${cracked} of batch ${row.number} are cracked: a cracked jar is never burned.`);
  const why = await asTestCandles(tx, context.workshop.id, {
    batchId: row.id,
    product: variant.product,
    jars: variant.testCandles,
    trial,
    now: context.now,
    personId: context.person?.id ?? null,
  });
  return why
    ? reject(`Batch ${row.number}: ${why}`)
    : ok({ ...part, batch: { id: row.id, number: row.number, product: variant.product, taken: true }, productId: null });
}

/** Begins a trial: pours what is to be made as batches, takes from the rack what is there, and freezes the test candles, all or nothing. */
export async function beginTrialIn(tx: Transaction, context: Actor, wanted: TrialWanted): Promise<Result<{ id: string; number: number; batches: string[] }>> {
  const workshopId = context.workshop.id;
  await lockWorkshop(tx, workshopId);
  const [existing] = await tx
    .select({ id: trials.id, number: trials.number })
    .from(trials)
    .where(and(eq(trials.workshopId, workshopId), eq(trials.id, wanted.trialId)));
  if (existing) return ok({ ...existing, batches: [] });
  const [top] = await tx
    .select({ top: max(trials.number) })
    .from(trials)
    .where(eq(trials.workshopId, workshopId));
  const number = (top?.top ?? 0) + 1;
  if (wanted.variants.some((variant) => variant.from === "make" && !variant.wick))
    return reject("Choose a wick for each test candle.", { variants: ["Choose a wick."] });
  // A candle is tested as it is sold, with what is laid in; but a load is compared without it.
  const product = wanted.productId && wanted.varies !== "load" ? await readProduct(tx, workshopId, wanted.productId) : null;
  const embedsOfVariant = ({ containerId, half }: Made) => (product?.containerId === containerId && !half ? (product.embeds ?? []) : []);
  const poured = await pour(tx, context, wanted.variants, wanted.oneMelt, embedsOfVariant);
  if (!poured.ok) return poured;
  const names = new Map((await readMaterialNames(tx, workshopId)).map((row) => [row.id, row.name]));
  const testCandles: TestCandle[] = [];
  const codes = blindCodes(
    wanted.variants.reduce((sum, item) => sum + item.testCandles, 0),
    Math.random,
  );
  for (const [index, variant] of wanted.variants.entries()) {
    const letter = LETTERS[index] ?? "Z";
    const part = variant.from === "make" ? poured.value.get(index) : undefined;
    const taken = variant.from === "rack" ? await take(tx, context, variant, number) : null;
    if (taken && !taken.ok) return taken;
    const what = part ?? (taken?.ok ? taken.value : undefined);
    if (!what) return reject("A test candle could not be made. Choose again.");
    const ladder = variant.from === "make" ? variant.change.ladder : undefined;
    const dose = ladder && { name: names.get(ladder.id) ?? "", amount: ladder.amount };
    for (let n = 1; n <= variant.testCandles; n++)
      testCandles.push({
        ...what,
        ...(dose ? { dose } : {}),
        productId: wanted.productId,
        key: `${letter}${n}`,
        variant: letter,
        code: codes[testCandles.length] ?? `${letter}${n}`,
      });
  }
  const plan: TrialPlan = trialPlan.parse({
    format: 2,
    name: wanted.name,
    varies: wanted.varies,
    protocol: wanted.protocol,
    testCandles,
    ...(wanted.ownMarks.length > 0 ? { ownMarks: wanted.ownMarks } : {}),
    ...(wanted.after ? { after: wanted.after } : {}),
  });
  const event = { ...systemEntry({ now: context.now, personId: context.person?.id ?? null }, "started", { plan }), arrivedAt: context.now } as TrialEvent;
  const { state } = TRIAL.of([event]);
  await tx.insert(trials).values({ workshopId, id: wanted.trialId, number, ...trialRow(plan, state) });
  await tx.insert(trialEvents).values(trialEventRow(workshopId, wanted.trialId, event));
  await writeBurns(tx, workshopId, wanted.trialId, plan, state, null);
  context.notify?.({ trial: wanted.trialId, topics: ["burn", "stock", "waiting"] });
  return ok({
    id: wanted.trialId,
    number,
    batches: [...new Set(testCandles.flatMap((testCandle) => (testCandle.batch && !testCandle.batch.taken ? [testCandle.batch.id] : [])))],
  });
}
