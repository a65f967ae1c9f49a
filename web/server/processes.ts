import { type Process, process } from "@hearth/core";
import { and, asc, desc, eq } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { processes, processVersions } from "@/data/tables/process";

/** A process of the workshop's own, in its newest version. */
export interface OwnProcess {
  id: string;
  name: string;
  /** Counts edits. */
  version: number;
  number: number;
  process: Process;
}

/** The workshop's own processes by name, each in its newest version. */
export async function listProcesses(db: Database | Transaction, workshopId: string): Promise<OwnProcess[]> {
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
    .orderBy(asc(processVersions.processId), desc(processVersions.number))
    .limit(500);
  return rows
    .map((row) => ({ ...row, process: { ...process.parse(row.process), from: { id: row.id, number: row.number } } }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** One of them with all its versions, newest first; null where there is none such. */
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
    .orderBy(desc(processVersions.number))
    .limit(50);
  return {
    id: row.id,
    name: row.name,
    version: row.version,
    versions: versions.map((one) => ({ number: one.number, process: process.parse(one.process), createdAt: one.createdAt })),
  };
}
