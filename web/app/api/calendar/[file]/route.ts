import { eq } from "drizzle-orm";
import { z } from "zod";
import { database } from "@/data/client";
import { now } from "@/data/clock";
import { planning } from "@/data/tables/plan";
import { workshops } from "@/data/tables/workshop";
import { calendarOf } from "@/server/calendar";
import { originOf } from "@/server/paper/answer";
import { answering, refuse } from "@/server/respond";

const secret = z.string().regex(/^[A-Za-z0-9_-]{32}\.ics$/);

/** The calendar of the workshop whose secret address this is. */
export async function GET(request: Request, { params }: { params: Promise<{ file: string }> }): Promise<Response> {
  return answering(async () => {
    const file = secret.safeParse((await params).file);
    const db = database();
    const [row] = file.success
      ? await db
          .select({ workshop: workshops })
          .from(planning)
          .innerJoin(workshops, eq(workshops.id, planning.workshopId))
          .where(eq(planning.calendarKey, file.data.slice(0, -4)))
      : [];
    if (!row) return refuse(404, "There is no calendar here. Its address may have been renewed.");
    return new Response(await calendarOf(db, row.workshop, now(), originOf(request)), {
      headers: { "content-type": "text/calendar; charset=utf-8", "cache-control": "no-store", "content-disposition": 'inline; filename="hearth-jar.ics"' },
    });
  });
}
