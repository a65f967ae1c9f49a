import { z } from "zod";
import { readEpoch } from "@/data/epoch";
import { atWorkshop } from "@/server/door/door";
import { placesOf } from "@/server/places-of-entries";
import { refuse, respond } from "@/server/respond";

export const dynamic = "force-dynamic";

const ids = z.array(z.uuid()).min(1).max(100);

/** Which of these entries the log holds, and where: what a device asks after a backup was restored. Answers `{"epoch":…,"known":[{"id":…,"seq":…}]}`. */
export const GET = atWorkshop({ area: "bench", act: "see" }, {}, "There is no such workshop.", async (request, { db, workshop }) => {
  const asked = ids.safeParse((new URL(request.url).searchParams.get("ids") ?? "").split(","));
  if (!asked.success) return refuse(400, "Name up to 100 entries by their ids, with commas between them.", { ids: ["Name up to 100 entries by their ids."] });
  return respond({ status: 200, body: { epoch: await readEpoch(db), known: await placesOf(db, workshop.id, asked.data) } });
});
