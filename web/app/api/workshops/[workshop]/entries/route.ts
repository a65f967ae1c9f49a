import { z } from "zod";
import { readEpoch } from "@/data/epoch";
import { workshopRoute } from "@/server/auth/authorize";
import { entryPositions } from "@/server/events/entry-positions";
import { errorResponse, jsonResponse } from "@/server/http/respond";

export const dynamic = "force-dynamic";

const ids = z.array(z.uuid()).min(1).max(100);

/** Which of these entries the log holds, and where: what a device asks after a backup was restored. Answers `{"epoch":…,"known":[{"id":…,"seq":…}]}`. */
export const GET = workshopRoute({ area: "bench", action: "see" }, {}, "There is no such workshop.", async (request, { db, workshop }) => {
  const asked = ids.safeParse((new URL(request.url).searchParams.get("ids") ?? "").split(","));
  if (!asked.success)
    return errorResponse(400, "Name up to 100 entries by their ids, with commas between them.", { ids: ["Name up to 100 entries by their ids."] });
  return jsonResponse({ status: 200, body: { epoch: await readEpoch(db), known: await entryPositions(db, workshop.id, asked.data) } });
});
