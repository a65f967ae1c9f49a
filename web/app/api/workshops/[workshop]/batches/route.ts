import { workshopRoute } from "@/server/auth/authorize";
import { openBatchNames } from "@/server/batches/batches";

/** The batches that run, set or cure: an entry can be moved to one of them. */
export const GET = workshopRoute({ area: "bench", action: "see" }, {}, "There is no such workshop.", async (_request, { db, workshop }) =>
  Response.json({ batches: await openBatchNames(db, workshop.id) }),
);
