import { asksWho } from "@/server/door/mode";
import { accountOf, DEVICE_COOKIE, deviceOf } from "@/server/door/who";
import { answering } from "@/server/respond";

export const dynamic = "force-dynamic";

/** Whether people say who they are here, and whether this browser is in. `cut`: it was a device of a workshop, and is none any more. */
export const GET = (request: Request): Promise<Response> =>
  answering(async () => {
    const device = await deviceOf(request.headers);
    const account = device ? null : await accountOf(request.headers);
    const cut = asksWho() && !device && !account && (request.headers.get("cookie") ?? "").includes(`${DEVICE_COOKIE}=`);
    return Response.json({ asks: asksWho(), cut, in: Boolean(device?.personId ?? account) }, { headers: { "cache-control": "no-store" } });
  });
