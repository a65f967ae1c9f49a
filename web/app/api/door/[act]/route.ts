import { fieldErrors } from "@hearth/core";
import { readBody } from "@/server/body";
import { ACTS } from "@/server/door/acts";
import { asksWho } from "@/server/door/mode";
import { readJson } from "@/server/json";
import { answering, refuse } from "@/server/respond";

export const dynamic = "force-dynamic";

/** What is asked at the door, by its name: signing in and out, invitations, devices and PINs. */
export async function POST(request: Request, { params }: { params: Promise<{ act: string }> }): Promise<Response> {
  return answering(async () => {
    const { act: name } = await params;
    const act = Object.hasOwn(ACTS, name) ? ACTS[name] : undefined;
    if (!act || !asksWho()) return refuse(404, "There is nothing of this kind at the door.");
    // A form of another site cannot send this kind of content.
    if (!(request.headers.get("content-type") ?? "").startsWith("application/json")) return refuse(415, "Send JSON.");
    const text = await readBody(request, 10_000);
    if (text === null) return refuse(413, "That is too long.");
    const body = readJson(text);
    if (!body.ok) return refuse(400, body.message);
    const given = act.asks.safeParse(body.value);
    if (!given.success) return refuse(400, given.error.issues[0]?.message ?? "This cannot be read.", fieldErrors(given.error));
    return act.does(request, given.data);
  });
}
