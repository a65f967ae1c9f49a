import { may } from "@hearth/core";
import { z } from "zod";
import { atWorkshop } from "@/server/door/door";
import { areaOfNoted, readPicture } from "@/server/notes";
import { refuse } from "@/server/respond";

export const dynamic = "force-dynamic";

/** A picture of a note. It never changes, so that a browser need not ask twice. */
export const GET = atWorkshop(
  { area: "bench", act: "see" },
  { picture: z.uuid() },
  "There is no such picture.",
  async (_request, { db, workshop, named, who }) => {
    const picture = await readPicture(db, workshop.id, named.picture);
    if (!picture || !may(who.role, { area: areaOfNoted(picture.kind), act: "see" })) return refuse(404, "There is no such picture.");
    return new Response(new Uint8Array(picture.jpeg), { headers: { "content-type": "image/jpeg", "cache-control": "private, max-age=31536000, immutable" } });
  },
);
