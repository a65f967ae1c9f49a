import { type BatchEvent, type BatchRecord, type BatchState, RECORD_FORMAT, RUNS_AS_FORMULA, type SentEvent } from "@hearth/core";
import { and, asc, eq, inArray } from "drizzle-orm";
import Papa from "papaparse";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { additives, dyes, fragrances, instruments, vessels, waxes } from "@/data/tables/shelf";
import { people, workshops } from "@/data/tables/workshop";
import { eventsOf } from "./events";

const present = <T>(values: (T | null)[]): T[] => [...new Set(values.filter((value) => value !== null))] as T[];

/** One batch as it travels: every row its events and formula name. Null where the workshop has no such batch. */
export async function batchRecordOf(db: Database, workshopId: string, batchId: string): Promise<BatchRecord | null> {
  const [batch] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)));
  if (!batch) return null;
  const [workshop] = await db.select({ name: workshops.name }).from(workshops).where(eq(workshops.id, workshopId));
  const [version] = await db
    .select()
    .from(formulaVersions)
    .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.id, batch.formulaVersionId)));
  if (!workshop || !version) return null;
  const [formula] = await db
    .select()
    .from(formulas)
    .where(and(eq(formulas.workshopId, workshopId), eq(formulas.id, version.formulaId)));
  if (!formula) return null;
  const events = (await eventsOf(db, workshopId, [batchId])).get(batchId) ?? [];
  const started = events.find((event) => event.kind === "started");
  const vesselIds = started?.kind === "started" ? started.payload.plan.vessels.map((vessel) => vessel.vesselId) : [];
  const weighedIds = started?.kind === "started" ? started.payload.plan.components.filter((part) => part.kind === "wax").map((part) => part.id) : [];
  const personIds = present(events.map((event) => event.personId));
  const instrumentIds = present(events.map((event) => event.instrumentId));
  const { spec } = version;

  const inOrder = <R extends { id: string }>(rows: R[]) => rows.sort((a, b) => (a.id < b.id ? -1 : 1));
  const strip = <R extends { workshopId: string; version: number }>({ workshopId: _of, version: _edits, ...rest }: R) => rest;
  return {
    format: RECORD_FORMAT,
    version: 1,
    workshop,
    batch: { id: batch.id, number: batch.number, formulaVersionId: version.id },
    formula: { id: formula.id, name: formula.name },
    formulaVersion: { id: version.id, number: version.number, spec, createdAt: new Date(version.createdAt).toISOString() },
    people: inOrder(
      await db
        .select({ id: people.id, name: people.name })
        .from(people)
        .where(and(eq(people.workshopId, workshopId), inArray(people.id, personIds))),
    ),
    instruments: inOrder(
      await db
        .select()
        .from(instruments)
        .where(and(eq(instruments.workshopId, workshopId), inArray(instruments.id, instrumentIds))),
    ).map(strip),
    additives: inOrder(
      await db
        .select()
        .from(additives)
        .where(
          and(
            eq(additives.workshopId, workshopId),
            inArray(
              additives.id,
              (spec.additives ?? []).map((part) => part.id),
            ),
          ),
        ),
    ).map(strip),
    dyes: inOrder(
      await db
        .select()
        .from(dyes)
        .where(
          and(
            eq(dyes.workshopId, workshopId),
            inArray(
              dyes.id,
              (spec.dyes ?? []).map((part) => part.id),
            ),
          ),
        ),
    ).map(strip),
    waxes: inOrder(
      await db
        .select()
        .from(waxes)
        .where(
          and(
            eq(waxes.workshopId, workshopId),
            // A blend's own waxes travel too, since they are what was weighed.
            inArray(waxes.id, present([...spec.waxes.map((part) => part.id), ...weighedIds])),
          ),
        ),
    ).map(strip),
    fragrances: inOrder(
      await db
        .select()
        .from(fragrances)
        .where(
          and(
            eq(fragrances.workshopId, workshopId),
            inArray(
              fragrances.id,
              spec.fragrances.map((part) => part.id),
            ),
          ),
        ),
    ).map(strip),
    vessels: inOrder(
      await db
        .select()
        .from(vessels)
        .where(and(eq(vessels.workshopId, workshopId), inArray(vessels.id, vesselIds)))
        .orderBy(asc(vessels.id)),
    ).map(strip),
    events,
  };
}

/** The events of a batch as CSV, one row each, in SI units; cells that a spreadsheet would run as formulas are defused. */
export function eventsCsv(state: BatchState, number: number, names: (id: string | null) => string): string {
  const detail = (event: SentEvent | BatchEvent): { what: string; grams: string; celsius: string; shown: string; seconds: string } => {
    const none = { what: "", grams: "", celsius: "", shown: "", seconds: "" };
    switch (event.kind) {
      case "started":
        return {
          ...none,
          what: `${event.payload.plan.formulaName}, version ${event.payload.plan.versionNumber}`,
          grams: String(event.payload.plan.totalMg / 1_000),
        };
      case "weighed":
        return {
          ...none,
          what: state.plan.components.find((part) => part.id === event.payload.componentId)?.name ?? "",
          grams: String(event.payload.mg / 1_000),
        };
      case "counted": {
        const part = state.plan.components.find((one) => one.id === event.payload.componentId);
        return { ...none, what: `${event.payload.n} ${part?.count?.of ?? ""} ${part?.name ?? ""}` };
      }
      case "read":
        return {
          ...none,
          what: event.payload.gate,
          celsius: String((event.payload.shown + event.payload.correction) / 100),
          shown: String(event.payload.shown / 100),
        };
      case "stirred":
        return { ...none, seconds: String(event.payload.seconds) };
      case "poured":
        return { ...none, what: event.payload.warmedJars === null ? "" : event.payload.warmedJars ? "jars warmed" : "jars not warmed" };
      case "flaw": {
        const { defect, place, severity, jars, vesselId } = event.payload;
        return {
          ...none,
          what: `${defect}, ${place}, ${severity}, ${jars} × ${state.plan.vessels.find((vessel) => vessel.vesselId === vesselId)?.name ?? ""}`,
        };
      }
      case "looked":
        return { ...none, what: `${event.payload.jars} jars` };
      case "note":
        return { ...none, what: event.payload.text };
      case "closed":
        return { ...none, what: event.payload.missing.join(", ") };
      case "withdrawn":
        return { ...none, what: event.payload.why };
    }
  };
  const rows = state.entries.map(({ event, supersededBy }) => {
    const { what, grams, celsius, shown, seconds } = detail(event);
    return {
      batch: number,
      event_id: event.id,
      happened_at: event.happenedAt,
      arrived_at: event.arrivedAt,
      kind: event.kind,
      what,
      grams,
      wax_celsius: celsius,
      shown_celsius: shown,
      seconds,
      person: names(event.personId),
      instrument: names(event.instrumentId),
      corrects: event.corrects ?? "",
      stands: supersededBy ? "no" : "yes",
    };
  });
  return `\ufeff${Papa.unparse(rows, { newline: "\r\n", escapeFormulae: RUNS_AS_FORMULA })}\r\n`;
}
