import { openBatches } from "@/server/batches";
import { atWorkshop } from "@/server/door/door";

/** The batches that run, set or cure: an entry can be moved to one of them. */
export const GET = atWorkshop({ area: "bench", act: "see" }, {}, "There is no such workshop.", async (_request, { db, workshop }) => {
  const open = await openBatches(db, workshop.id);
  return Response.json({ batches: open.map(({ id, number, title }) => ({ id, number, title })) });
});
