import { z } from "zod";
import { answering, calculation, refuse, TooBusy } from "@/server/respond";
import { linesOf, reachBench } from "@/server/simulated";

export const dynamic = "force-dynamic";

const AWAY = "No simulated instruments run. Start them with ./hearth instruments, and try again.";
const place = z.object({ workshop: z.uuid(), kind: z.enum(["probe", "scale"]) });
type Place = { params: Promise<{ workshop: string; kind: string }> };

/** What the simulated probe or scale says, line by line, for as long as somebody listens. */
export const GET = (request: Request, { params }: Place): Promise<Response> =>
  answering(async () => {
    const at = place.safeParse(await params);
    if (!at.success) return refuse(404, "There is no such instrument.");
    const bench = await reachBench();
    if (!bench) return refuse(503, AWAY);
    bench.write(`${at.data.kind.toUpperCase()}\n`);
    return new Response(linesOf(bench, request.signal), {
      headers: { "content-type": "text/plain; charset=us-ascii", "cache-control": "no-cache, no-transform", "x-accel-buffering": "no" },
    });
  });

/** What is done to the simulated pot or scale: heat, stirring, oil, a weight put on, the tare. */
const told = z.object({ tell: z.string().regex(/^(HEAT [01]|STIR|OIL \d{1,5}|PUT -?\d{1,5}(\.\d)?|Z)$/, "That is nothing that can be done to it.") });
export const POST = calculation(
  told,
  async ({ tell }) => {
    const bench = await reachBench();
    if (!bench) throw new TooBusy(AWAY);
    await new Promise<void>((done) => bench.end(`${tell}\n`, done));
    return { told: tell };
  },
  () => null,
);
