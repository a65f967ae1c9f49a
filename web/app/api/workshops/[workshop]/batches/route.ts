import { workshopRoute } from "@/server/auth/authorize";
import { openBatches } from "@/server/batches/batches";

/** The batches that run, set or cure: an entry can be moved to one of them. */
export const GET = workshopRoute({ area: "bench", action: "see" }, {}, "There is no such workshop.", async (_request, { db, workshop }) => {
  const open = await openBatches(db, workshop.id);
  return Response.json({ batches: open.map(({ id, number, title }) => ({ id, number, title })) });
});
