"use server";

import { process as processSchema } from "@hearth/core";
import { and, desc, eq } from "drizzle-orm";
import { revalidatePath } from "next/cache";
import { v7 } from "uuid";
import { z } from "zod";
import { processes, processVersions } from "@/data/tables/process";
import { canonical } from "@/server/canonical";
import { command, done, type Outcome, refused } from "@/server/outcome";

const savedProcess = z.object({
  id: z.uuid().nullable(),
  expectedVersion: z.number().int().nullable(),
  process: processSchema,
});

/** Keeps a process of the workshop's own. A change makes the next version; formulas keep the one they were made with. */
export async function saveProcess(place: unknown, input: unknown): Promise<Outcome<{ id: string; number: number; version: number }>> {
  return command(savedProcess, place, input, async (wanted, { db, workshop, person, now }) => {
    const mine = workshop.id;
    const { from: _from, ...kept } = wanted.process;
    const outcome = await db.transaction(async (tx): Promise<Outcome<{ id: string; number: number; version: number }>> => {
      if (wanted.id === null) {
        const id = v7();
        await tx.insert(processes).values({ workshopId: mine, id, name: kept.name, updatedAt: now, updatedBy: person?.id ?? null });
        await tx.insert(processVersions).values({ workshopId: mine, processId: id, number: 1, process: kept, createdAt: now });
        return done({ id, number: 1, version: 1 });
      }
      const [row] = await tx
        .select()
        .from(processes)
        .where(and(eq(processes.workshopId, mine), eq(processes.id, wanted.id)))
        .for("update");
      if (!row) return refused("This process is not in this workshop.");
      if (row.version !== wanted.expectedVersion)
        return refused("Somebody else changed this process in the meantime. Your typing is kept: look at the newer one in another window, then save again.");
      const [newest] = await tx
        .select()
        .from(processVersions)
        .where(and(eq(processVersions.workshopId, mine), eq(processVersions.processId, wanted.id)))
        .orderBy(desc(processVersions.number))
        .limit(1);
      const changed = canonical(newest?.process) !== canonical(kept);
      const number = (newest?.number ?? 0) + (changed ? 1 : 0);
      if (changed) await tx.insert(processVersions).values({ workshopId: mine, processId: wanted.id, number, process: kept, createdAt: now });
      const version = row.version + 1;
      await tx
        .update(processes)
        .set({ name: kept.name, version, updatedAt: now, updatedBy: person?.id ?? null })
        .where(and(eq(processes.workshopId, mine), eq(processes.id, wanted.id)));
      return done({ id: wanted.id, number, version });
    });
    if (outcome.ok) revalidatePath("/", "layout");
    return outcome;
  });
}
