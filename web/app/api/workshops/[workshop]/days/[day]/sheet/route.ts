import { isoDay } from "@hearth/core";
import { workshopRoute } from "@/server/auth/authorize";
import { errorResponse } from "@/server/http/respond";
import { paperAnswer, workshopAddress } from "@/server/paper/answer";
import { scalesOf, sheetsOfDay } from "@/server/paper/day";

/** The sheets of all pots of a day, or the tags of their jars (`what=tags`), as PDF in `size` a4 or letter. */
export const GET = workshopRoute(
  { area: "plan", action: "see" },
  { day: isoDay() },
  "There is no such day in this workshop.",
  async (request, { db, workshop, named, now }) => {
    const sheets = await sheetsOfDay(db, workshop, named.day, now, workshopAddress(request, workshop.id));
    if (sheets.length === 0)
      return errorResponse(404, "Nothing is planned on this day that can be put on a sheet. Say what is made, and which scale weighs it.");
    const { capacities } = await scalesOf(db, workshop.id);
    return paperAnswer(request, sheets, workshop, capacities, `day-${named.day}`);
  },
);
