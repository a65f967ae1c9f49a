import { countsOn, type DayRecord, dayRecord, planBatch, planDemand, potsOf, type Scale, scalesFor, WeighOutError, workOfDay } from "@hearth/core";
import type { Database } from "@/data/client";
import { listInstruments } from "@/server/batches/batches";
import { ALL_OTHERS, readDay, readDemandPlan } from "@/server/planning/planning";
import type { SheetOf } from "./sheets";

/** Returns the scales of a workshop, and what each takes. */
export async function scalesOf(db: Database, workshopId: string): Promise<{ scales: Scale[]; capacities: Map<string, number> }> {
  const scales = (await listInstruments(db, workshopId)).flatMap((instrument) =>
    instrument.kind === "scale" && instrument.resolutionUg !== null
      ? [{ id: instrument.id, name: instrument.name, resolutionUg: instrument.resolutionUg, unit: instrument.scaleUnit, capacityMg: instrument.capacityMg }]
      : [],
  );
  return { scales, capacities: new Map(scales.flatMap((scale) => (scale.capacityMg ? [[scale.id, scale.capacityMg] as const] : []))) };
}

/** The pots of a day as sheets: as the day was kept, or else as the plan puts them there. What works several pots at once is left to its own plan. */
export async function sheetsOfDay(db: Database, workshop: { id: string; timeZone: string }, day: string, now: string, origin: string): Promise<SheetOf[]> {
  const [{ lines, products, settings, made, shelf }, { kept }] = await Promise.all([readDemandPlan(db, workshop, ALL_OTHERS), readDay(db, workshop.id, day)]);
  const planned = countsOn(planDemand(lines, products, settings, { now, zone: workshop.timeZone }), day);
  const { hands, burners, pitchers, pitcherMg, sparePpm } = settings;
  const record: DayRecord = kept ?? dayRecord.parse({ hands, burners, pitchers, pitcherMg, sparePpm, counts: planned });
  const { scales } = await scalesOf(db, workshop.id);
  const work = workOfDay(
    record,
    products.map((product) => ({ ...product, productId: product.id })),
  );
  return work.flatMap(({ pot }): SheetOf[] => {
    const formula = made.find((item) => item.product.formulaId === pot.formulaId);
    const wanted = pot.lines.flatMap((line) => {
      const container = made.find((item) => item.product.id === line.productId)?.container;
      return container ? [{ ...container, count: line.count }] : [];
    });
    const used = scalesFor(scales, pot.totalMg / 10);
    if (!formula || !used || wanted.length === 0 || potsOf(formula.spec.process.steps) > 1) return [];
    const { spec, product } = formula;
    const query = `formula=${pot.formulaId}&fill=${wanted.map((item) => `${item.id}:${item.count}`).join(",")}`;
    try {
      const plan = planBatch(
        {
          process: spec.process,
          pots: [{ name: product.formulaName, number: 1, spec }],
          products: wanted,
          sparePpm: record.sparePpm,
          pitcherMg: record.pitcherMg,
          scales: used,
        },
        shelf,
      );
      return [{ name: `Pot ${pot.number}`, day, plan, address: `${origin}/plan?${query}`, opens: "opens the plan of this batch" }];
    } catch (error) {
      if (error instanceof WeighOutError) return [];
      throw error;
    }
  });
}
