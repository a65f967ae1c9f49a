import { readCatalogue } from "@/server/catalogue";
import { atWorkshop } from "@/server/door/door";

/** Everything of a workshop that can be chosen: read once when somebody begins to look. */
export const GET = atWorkshop({ area: "plan", act: "see" }, {}, "There is no such workshop.", async (_request, { db, workshop }) => {
  return Response.json(await readCatalogue(db, workshop.id, workshop.timeZone));
});
