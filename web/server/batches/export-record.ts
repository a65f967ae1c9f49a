import {
  BATCH,
  type BatchEvent,
  type BatchRecord,
  cellInUnits,
  columnInUnits,
  inUnits,
  METRIC,
  namedIn,
  RECORD_FORMAT,
  RUNS_AS_FORMULA,
  readableOf,
  readFormula,
  resolveCorrections,
  type UnitChoice,
  unreadableOf,
  versionOf,
} from "@hearth/core";
import { and, asc, eq, inArray } from "drizzle-orm";
import Papa from "papaparse";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { additives, dyes, embeds, fragrances, instruments, molds, vessels, waxes, wicks } from "@/data/tables/shelf";
import { people, workshops } from "@/data/tables/workshop";
import { readBatchEvents, readBatchState } from "@/server/events/read-events";
import type { OwnedTable } from "@/server/inventory/tables";

const present = <T>(values: (T | null)[]): T[] => [...new Set(values.filter((value) => value !== null))] as T[];

/** Returns one batch as it is exported: every row its entries and formulas name. Null if the workshop has no such batch. */
export async function batchRecordOf(db: Database, workshopId: string, batchId: string): Promise<BatchRecord | null> {
  const [batch] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)));
  if (!batch) return null;
  const [workshop] = await db.select({ name: workshops.name }).from(workshops).where(eq(workshops.id, workshopId));
  const formulaOf = async (versionId: string) => {
    const [version] = await db
      .select()
      .from(formulaVersions)
      .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.id, versionId)));
    const [formula] = version
      ? await db
          .select()
          .from(formulas)
          .where(and(eq(formulas.workshopId, workshopId), eq(formulas.id, version.formulaId)))
      : [];
    return version && formula
      ? {
          formula: { id: formula.id, name: formula.name },
          formulaVersion: { id: version.id, number: version.number, spec: readFormula(version.spec), createdAt: new Date(version.createdAt).toISOString() },
        }
      : null;
  };
  const main = await formulaOf(batch.formulaVersionId);
  if (!workshop || !main) return null;
  const events = await readBatchEvents(db, workshopId, batchId);
  const { plan } = await readBatchState(db, batch);
  const used = (kind: string) => plan.pots.flatMap((pot) => pot.components.filter((part) => part.kind === kind).map((part) => part.id));
  const named = plan.pots.flatMap((pot) =>
    [...pot.recipe.waxes, ...pot.recipe.fragrances, ...(pot.recipe.additives ?? []), ...(pot.recipe.dyes ?? [])].map((item) => item.id),
  );
  const { spec } = main.formulaVersion;
  const wanted = present([...named, ...namedIn(spec), ...used("wax")]);
  const rows = async <T extends OwnedTable>(table: T, ids: string[]) => {
    const all = await db
      .select()
      .from(table as OwnedTable)
      .where(and(eq(table.workshopId, workshopId), inArray(table.id, ids)))
      .orderBy(asc(table.id));
    return all.map(({ workshopId: _of, version: _edits, ...rest }) => rest) as Omit<T["$inferSelect"], "workshopId" | "version">[];
  };
  return {
    format: RECORD_FORMAT,
    version: 3,
    workshop,
    batch: { id: batch.id, number: batch.number, formulaVersionId: batch.formulaVersionId },
    ...main,
    people: await db
      .select({ id: people.id, name: people.name })
      .from(people)
      .where(and(eq(people.workshopId, workshopId), inArray(people.id, present(events.map((event) => event.personId)))))
      .orderBy(asc(people.id)),
    instruments: await rows(
      instruments,
      present([...events.map((event) => event.instrumentId), ...plan.pots.flatMap((pot) => pot.components.map((part) => part.scale.id))]),
    ),
    waxes: await rows(waxes, wanted),
    fragrances: await rows(fragrances, wanted),
    vessels: await rows(vessels, present(plan.products.filter((product) => product.container === "vessel").map((product) => product.containerId))),
    additives: await rows(additives, wanted),
    dyes: await rows(dyes, wanted),
    wicks: await rows(wicks, present(plan.products.map((product) => product.wicks?.wickId ?? null))),
    molds: await rows(molds, present(plan.products.filter((product) => product.container === "mold").map((product) => product.containerId))),
    embeds: await rows(embeds, present(plan.products.flatMap((product) => (product.embeds ?? []).map((embed) => embed.embedId)))),
    events: events.map((event) => ({ ...event, v: versionOf(event.kind) })) as BatchRecord["events"],
  };
}

/** The entries of a batch as CSV, one row each, in the given units; cells that a spreadsheet would run as formulas are defused. */
export function eventsCsv(events: readonly BatchEvent[], number: number, names: (id: string | null) => string, units: UnitChoice = METRIC): string {
  const start = events.find((event) => event.kind === "started");
  const { plan } = start ? start.payload : readableOf(null);
  const rows = resolveCorrections(events).map(({ event, supersededBy }) => {
    const unreadable = unreadableOf(event);
    const cells = unreadable
      ? { what: `cannot be read (${unreadable.kind}): ${unreadable.why}` }
      : (BATCH.eventTypes.get(event.kind)?.columns(event.payload, plan) ?? {});
    return {
      batch: number,
      event_id: event.id,
      happened_at: event.happenedAt,
      arrived_at: event.arrivedAt,
      kind: event.kind,
      what: inUnits(cells.what ?? "", units),
      grams: cells.grams ?? "",
      wax_celsius: cells.wax_celsius ?? "",
      shown_celsius: cells.shown_celsius ?? "",
      seconds: cells.seconds ?? "",
      person: names(event.personId),
      instrument: names(event.instrumentId),
      corrects: event.corrects ?? "",
      stands: supersededBy ? "no" : "yes",
    };
  });
  const columns = Object.keys(rows[0] ?? {});
  const fields = columns.map((column) => columnInUnits(column, units));
  const data = rows.map((row) => columns.map((column) => cellInUnits(column, row[column as keyof typeof row], units)));
  return `\ufeff${Papa.unparse({ fields, data }, { newline: "\r\n", escapeFormulae: RUNS_AS_FORMULA })}\r\n`;
}
