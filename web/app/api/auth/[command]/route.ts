import { fieldErrors } from "@hearth/core";
import { AUTH_COMMANDS } from "@/server/auth/commands";
import { requiresSignIn } from "@/server/auth/sign-in-mode";
import { readBody } from "@/server/http/body";
import { readJson } from "@/server/http/json";
import { errorResponse, handleRequest } from "@/server/http/respond";

export const dynamic = "force-dynamic";

/** Runs an authentication command by its name: signing in and out, invitations, devices and PINs. */
export async function POST(request: Request, { params }: { params: Promise<{ command: string }> }): Promise<Response> {
  return handleRequest(async () => {
    const { command: name } = await params;
    const authCommand = Object.hasOwn(AUTH_COMMANDS, name) ? AUTH_COMMANDS[name] : undefined;
    if (!authCommand || !requiresSignIn()) return errorResponse(404, "There is no such sign-in request.");
    // A form of another site cannot send this kind of content.
    if (!(request.headers.get("content-type") ?? "").startsWith("application/json")) return errorResponse(415, "Send JSON.");
    const text = await readBody(request, 10_000);
    if (text === null) return errorResponse(413, "That is too long.");
    const body = readJson(text);
    if (!body.ok) return errorResponse(400, body.message);
    const given = authCommand.asks.safeParse(body.value);
    if (!given.success) return errorResponse(400, given.error.issues[0]?.message ?? "This cannot be read.", fieldErrors(given.error));
    return authCommand.does(request, given.data);
  });
}
