import { type FormulaSpec, inUnit, PRESET_PROCESSES, type Process, process, processFrom, readFormula, type TemperatureUnit, upcastProcess } from "@hearth/core";
import { and, asc, desc, eq, sql } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { formulas } from "@/data/tables/formula";
import { processes, processVersions } from "@/data/tables/process";
import { canonical } from "@/server/shared/canonical-json";
import { naturalSort } from "@/server/shared/natural-sort";
import { newestVersions } from "./formulas";

/** A process of the workshop's own, in its newest version. */
export interface CustomProcess {
  id: string;
  name: string;
  /** Counts edits. */
  version: number;
  number: number;
  process: Process;
}

/** A ready-made process as it can be chosen for a batch. */
export interface PresetChoice {
  id: string;
  name: string;
  families: readonly string[];
  process: Process;
}
/** Returns all processes to start from, on whole degrees of the workshop's unit. */
export const presetChoices = (unit: TemperatureUnit): PresetChoice[] =>
  PRESET_PROCESSES.map((preset) => ({ id: preset.id, name: preset.name, families: preset.families, process: inUnit(processFrom(preset), unit) }));

/** Returns the workshop's own processes by name, each in its newest version. */
export async function listProcesses(db: Database | Transaction, workshopId: string): Promise<CustomProcess[]> {
  const rows = await db
    .selectDistinctOn([processVersions.processId], {
      id: processes.id,
      name: processes.name,
      version: processes.version,
      number: processVersions.number,
      process: processVersions.process,
    })
    .from(processVersions)
    .innerJoin(processes, and(eq(processes.workshopId, processVersions.workshopId), eq(processes.id, processVersions.processId)))
    .where(eq(processVersions.workshopId, workshopId))
    .orderBy(asc(processVersions.processId), desc(processVersions.number));
  return rows
    .map((row) => ({ ...row, process: { ...process.parse(upcastProcess(row.process)), from: { id: row.id, number: row.number } } }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** One of them with all its versions, newest first; null if there is none such. */
export async function readProcess(db: Database, workshopId: string, id: string) {
  const [row] = await db
    .select()
    .from(processes)
    .where(and(eq(processes.workshopId, workshopId), eq(processes.id, id)));
  if (!row) return null;
  const versions = await db
    .select()
    .from(processVersions)
    .where(and(eq(processVersions.workshopId, workshopId), eq(processVersions.processId, id)))
    .orderBy(desc(processVersions.number));
  return {
    id: row.id,
    name: row.name,
    version: row.version,
    versions: versions.map((version) => ({ number: version.number, process: process.parse(upcastProcess(version.process)), createdAt: version.createdAt })),
  };
}

/** A formula whose newest version is worked by a process of the workshop's own. */
export interface Follower {
  id: string;
  name: string;
  /** Counts edits. */
  version: number;
  spec: FormulaSpec;
  /** Which version of the process it was taken from. */
  number: number;
  /** Whether it was changed in the formula since. */
  changed: boolean;
}

/** The formulas that were made with a process, by name; those put away are not asked. */
export async function followersOf(
  db: Database,
  workshopId: string,
  processId: string,
  versions: readonly { number: number; process: Process }[],
): Promise<Follower[]> {
  const newest = newestVersions(db, workshopId);
  const rows = await db
    .select({ id: formulas.id, name: formulas.name, version: formulas.version, spec: newest.spec })
    .from(formulas)
    .innerJoin(newest, eq(newest.formulaId, formulas.id))
    .where(and(eq(formulas.workshopId, workshopId), eq(formulas.archived, false), sql`${newest.spec} -> 'process' -> 'from' ->> 'id' = ${processId}`))
    .orderBy(naturalSort(formulas.name), formulas.id);
  return rows.map((row) => {
    const spec = readFormula(row.spec);
    const { from, ...worked } = spec.process;
    const taken = versions.find((version) => version.number === from?.number)?.process;
    return { ...row, spec, number: from?.number ?? 1, changed: taken !== undefined && canonical(worked) !== canonical({ ...taken, from: undefined }) };
  });
}
