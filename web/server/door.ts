import { may, type Need, type Role } from "@hearth/core";
import { z } from "zod";
import { type Database, databaseOf } from "@/data/client";
import { now } from "@/data/clock";
import { answering, refuse } from "./respond";
import { readWorkshop, type Workshop } from "./workshops";

/** Who asks, as far as one workshop is concerned. */
export interface Who {
  role: Role;
  /** By whom entries are put down; null where the page says it, as on a machine that needs no sign-in. */
  personId: string | null;
}

/** The one who works at this machine, where nobody else can reach it: whoever it is may do everything. */
export const ALONE: Who = { role: "owner", personId: null };

export type Entered<T> = { ok: true; value: T } | { ok: false; status: 401 | 403 | 404; message: string };

export const NOT_YOURS = "You may not do this here. Ask the workshop's owner.";

/** Whether who sent this may do it in that workshop. */
export async function enter(_headers: Headers, _workshopId: string, need: Need): Promise<Entered<Who>> {
  const who = ALONE;
  return may(who.role, need) ? { ok: true, value: who } : { ok: false, status: 403, message: NOT_YOURS };
}

/** A route of one workshop: who may not enter is refused before anything is read. */
export function atWorkshop<S extends z.ZodRawShape, P>(
  need: Need,
  shape: S,
  missing: string,
  act: (request: Request, at: { db: Database; workshop: Workshop; who: Who; now: string; named: z.output<z.ZodObject<S>> }) => Promise<Response>,
) {
  return (request: Request, { params }: { params: Promise<P> }): Promise<Response> =>
    answering(async () => {
      const at = z.object({ workshop: z.uuid() }).safeParse(await params);
      if (!at.success) return refuse(404, missing);
      const entered = await enter(request.headers, at.data.workshop, need);
      if (!entered.ok) return refuse(entered.status, entered.message);
      const named = z.object(shape).safeParse(await params);
      const workshop = named.success ? await readWorkshop(at.data.workshop) : null;
      if (!workshop || !named.success) return refuse(404, missing);
      return act(request, { db: databaseOf(workshop.id), workshop, who: entered.value, now: now(), named: named.data });
    });
}

/** The part of the program that each subject of the log belongs to. */
export const AREA_OF = { batch: "bench", trial: "burn", order: "sell" } as const;
