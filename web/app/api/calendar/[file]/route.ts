import { z } from "zod";
import { tenantDatabase } from "@/data/client";
import { now } from "@/data/clock";
import { calendarOf } from "@/server/batches/calendar";
import { errorResponse, handleRequest } from "@/server/http/respond";
import { workshopAddress } from "@/server/paper/answer";
import { workshopOfCalendar } from "@/server/workshops/workshops";

const secret = z.string().regex(/^[A-Za-z0-9_-]{32}\.ics$/);

/** The calendar of the workshop whose secret address this is. */
export async function GET(request: Request, { params }: { params: Promise<{ file: string }> }): Promise<Response> {
  return handleRequest(async () => {
    const file = secret.safeParse((await params).file);
    const workshop = file.success ? await workshopOfCalendar(file.data.slice(0, -4)) : null;
    if (!workshop) return errorResponse(404, "There is no calendar here. Its address may have been renewed.");
    return new Response(await calendarOf(tenantDatabase(workshop.id), workshop, now(), workshopAddress(request, workshop.id)), {
      headers: { "content-type": "text/calendar; charset=utf-8", "cache-control": "no-store", "content-disposition": 'inline; filename="hearth-jar.ics"' },
    });
  });
}
