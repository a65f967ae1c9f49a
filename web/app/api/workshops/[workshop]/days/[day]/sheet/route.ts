import { eq } from "drizzle-orm";
import { z } from "zod";
import { database } from "@/data/client";
import { now } from "@/data/clock";
import { workshops } from "@/data/tables/workshop";
import { originOf, paperAnswer } from "@/server/paper/answer";
import { scalesOf, sheetsOfDay } from "@/server/paper/day";
import { answering, refuse } from "@/server/respond";

/** The sheets of all pots of a day, or the tags of their jars (`what=tags`), as PDF in `size` a4 or letter. */
export async function GET(request: Request, { params }: { params: Promise<{ workshop: string; day: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid(), day: z.iso.date() }).safeParse(await params);
    const db = database();
    const [workshop] = at.success ? await db.select().from(workshops).where(eq(workshops.id, at.data.workshop)) : [];
    if (!workshop || !at.success) return refuse(404, "There is no such day in this workshop.");
    const sheets = await sheetsOfDay(db, workshop, at.data.day, now(), originOf(request));
    if (sheets.length === 0) return refuse(404, "Nothing is planned on this day that can be put on a sheet. Say what is made, and which scale weighs it.");
    const { capacities } = await scalesOf(db, workshop.id);
    return (
      (await paperAnswer(request, sheets, workshop, capacities, `day-${at.data.day}`)) ?? refuse(400, "Ask for size a4 or letter, and for sheets or tags.")
    );
  });
}
