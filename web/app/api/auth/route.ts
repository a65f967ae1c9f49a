import { accountOf, DEVICE_COOKIE, deviceOf } from "@/server/auth/session";
import { requiresSignIn } from "@/server/auth/sign-in-mode";
import { handleRequest } from "@/server/http/respond";

export const dynamic = "force-dynamic";

/** Whether people say who they are here, and whether this browser is in. `cut`: it was a device of a workshop, and is none any more. */
export const GET = (request: Request): Promise<Response> =>
  handleRequest(async () => {
    const device = await deviceOf(request.headers);
    const account = device ? null : await accountOf(request.headers);
    const cut = requiresSignIn() && !device && !account && (request.headers.get("cookie") ?? "").includes(`${DEVICE_COOKIE}=`);
    return Response.json({ asks: requiresSignIn(), cut, in: Boolean(device?.personId ?? account) }, { headers: { "cache-control": "no-store" } });
  });
