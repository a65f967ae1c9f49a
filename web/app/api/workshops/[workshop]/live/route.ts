import { atWorkshop } from "@/server/door";
import { hearChanges } from "@/server/live";

export const dynamic = "force-dynamic";

/** Every change of a workshop as it is written, as a stream of server-sent events. */
export const GET = atWorkshop({ area: "today", act: "see" }, {}, "There is no such workshop.", async (request, { workshop: { id: workshop } }) => {
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
      // What happened between the page's reading and this moment is read anew.
      send(`retry: 1000\ndata: ${JSON.stringify({ workshop: "*" })}\n\n`);
      const leave = hearChanges((change) => {
        if (change.workshop === workshop || change.workshop === "*") send(`data: ${JSON.stringify(change)}\n\n`);
      });
      const pulse = setInterval(() => send(": still here\n\n"), 20_000);
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
