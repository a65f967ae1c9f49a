import { z } from "zod";
import { database } from "@/data/client";
import { readPicture } from "@/server/notes";
import { answering, refuse } from "@/server/respond";

export const dynamic = "force-dynamic";

/** A picture of a note. It never changes, so that a browser need not ask twice. */
export async function GET(_request: Request, { params }: { params: Promise<{ workshop: string; picture: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid(), picture: z.uuid() }).safeParse(await params);
    const jpeg = at.success ? await readPicture(database(), at.data.workshop, at.data.picture) : null;
    if (!jpeg) return refuse(404, "There is no such picture.");
    return new Response(new Uint8Array(jpeg), { headers: { "content-type": "image/jpeg", "cache-control": "private, max-age=31536000, immutable" } });
  });
}
