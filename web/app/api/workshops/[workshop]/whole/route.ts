import { workshopRoute } from "@/server/auth/authorize";
import { exportWorkshop } from "@/server/workshops/export-workshop";

export const dynamic = "force-dynamic";

/** Everything that is kept of a workshop, a row a line, compressed. No password, PIN or code is among it. */
export const GET = workshopRoute({ area: "people", action: "see" }, {}, "There is no such workshop.", async (_request, { db, workshop, now }) => {
  const { body, bytes } = await exportWorkshop(db, workshop.id, now);
  return new Response(body, {
    headers: {
      "content-type": "application/gzip",
      "content-length": String(bytes),
      "content-disposition": `attachment; filename="workshop-${now.slice(0, 10)}.ndjson.gz"`,
      "cache-control": "no-store",
    },
  });
});
