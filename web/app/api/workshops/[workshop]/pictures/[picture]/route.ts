import { may } from "@hearth/core";
import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { errorResponse } from "@/server/http/respond";
import { areaOfNoted, readPicture } from "@/server/workshops/notes";

export const dynamic = "force-dynamic";

/** A picture of a note. It never changes, so that a browser need not ask twice. */
export const GET = workshopRoute(
  { area: "bench", action: "see" },
  { picture: z.uuid() },
  "There is no such picture.",
  async (_request, { db, workshop, named, who }) => {
    const picture = await readPicture(db, workshop.id, named.picture);
    if (!picture || !may(who.role, { area: areaOfNoted(picture.kind), action: "see" })) return errorResponse(404, "There is no such picture.");
    return new Response(new Uint8Array(picture.jpeg), { headers: { "content-type": "image/jpeg", "cache-control": "private, max-age=31536000, immutable" } });
  },
);
