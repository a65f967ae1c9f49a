import { workshopRoute } from "@/server/auth/authorize";
import { readCatalogue } from "@/server/workshops/search-index";

/** Everything of a workshop that can be chosen: read once when somebody begins to look. */
export const GET = workshopRoute({ area: "plan", action: "see" }, {}, "There is no such workshop.", async (_request, { db, workshop }) => {
  return Response.json(await readCatalogue(db, workshop.id, workshop.timeZone));
});
