import { may, type Role } from "@hearth/core";
import { AREA_OF_AGGREGATE, workshopRoute } from "@/server/auth/authorize";
import { resolvePrincipal } from "@/server/auth/session";
import { requiresSignIn } from "@/server/auth/sign-in-mode";
import { type Change, changeMark, subscribeToChanges } from "@/server/http/change-stream";

/** Of a subject that somebody may not see nothing is told. */
const mayHear = (change: Change, role: Role): boolean =>
  (["batch", "trial", "order"] as const).every((what) => change[what] === undefined || may(role, { area: AREA_OF_AGGREGATE[what], action: "see" }));

export const dynamic = "force-dynamic";

/** Every change of a workshop as it is written, as a stream of server-sent events. */
export const GET = workshopRoute({ area: "bench", action: "see" }, {}, "There is no such workshop.", async (request, { workshop: { id: workshop }, who }) => {
  const encoder = new TextEncoder();
  let stop = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          stop();
        }
      };
      send("retry: 1000\n\n");
      // What may have happened between the page's reading and this moment is read anew.
      const since = new URL(request.url).searchParams.get("since");
      if (since === null || since !== changeMark(workshop)) send(`data: ${JSON.stringify({ workshop: "*" })}\n\n`);
      const leave = subscribeToChanges((change) => {
        if (change.workshop !== workshop && change.workshop !== "*") return;
        if (change.ends || (change.role !== undefined && change.role === who.personId)) return stop();
        // Who was cut off hears so, and nothing after it.
        if (change.cut && (change.cut === who.device || change.cut === who.personId)) {
          send(`data: ${JSON.stringify({ workshop, cut: true })}\n\n`);
          return stop();
        }
        if (mayHear(change, who.role)) send(`data: ${JSON.stringify(change)}\n\n`);
      });
      const pulse = setInterval(async () => {
        // A sign-in that was ended elsewhere ends what it listens to as well.
        const still = requiresSignIn() ? await resolvePrincipal(request.headers, workshop).catch(() => who) : who;
        if (typeof still === "string" || still.role !== who.role) stop();
        else send(": still here\n\n");
      }, 20_000);
      stop = () => {
        leave();
        clearInterval(pulse);
        try {
          controller.close();
        } catch {
          // It was closed by the other end.
        }
      };
      request.signal.addEventListener("abort", () => stop());
    },
    cancel: () => stop(),
  });
  return new Response(stream, { headers: { "content-type": "text/event-stream", "cache-control": "no-cache, no-transform", "x-accel-buffering": "no" } });
});
