import { atWorkshop } from "@/server/door/door";
import { linesOfWorkshop } from "@/server/whole";

export const dynamic = "force-dynamic";

/** Everything that is kept of a workshop, a row a line, to take along. No password, PIN or code is among it. */
export const GET = atWorkshop(
  { area: "people", act: "see" },
  {},
  "There is no such workshop.",
  async (_request, { db, workshop, now }) =>
    new Response(linesOfWorkshop(db, workshop.id, now), {
      headers: {
        "content-type": "application/x-ndjson; charset=utf-8",
        "content-disposition": `attachment; filename="workshop-${now.slice(0, 10)}.ndjson"`,
        "cache-control": "no-store",
      },
    }),
);
