import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { linesOf, reachBench } from "@/server/batches/simulated-instruments";
import { calculationRoute, errorResponse, ServerBusyError } from "@/server/http/respond";

export const dynamic = "force-dynamic";

const kind = { kind: z.enum(["probe", "scale"]) };
const AWAY = "No simulated instruments run. Start them with ./hearth instruments, and try again.";
/** What the simulated probe or scale says, line by line, for as long as somebody listens. */
export const GET = workshopRoute({ area: "bench", action: "see" }, kind, "There is no such instrument.", async (request, { named }) => {
  const bench = await reachBench();
  if (!bench) return errorResponse(503, AWAY);
  bench.write(`${named.kind.toUpperCase()}\n`);
  return new Response(linesOf(bench, request.signal), {
    headers: { "content-type": "text/plain; charset=us-ascii", "cache-control": "no-cache, no-transform", "x-accel-buffering": "no" },
  });
});

/** What is done to the simulated pot or scale: heat, stirring, oil, a weight put on, the tare. */
const told = z.object({ tell: z.string().regex(/^(HEAT [01]|STIR|OIL \d{1,5}|PUT -?\d{1,5}(\.\d)?|Z)$/, "That is nothing that can be done to it.") });
const tell = calculationRoute(
  told,
  async ({ tell }) => {
    const bench = await reachBench();
    if (!bench) throw new ServerBusyError(AWAY);
    await new Promise<void>((done) => bench.end(`${tell}\n`, done));
    return { told: tell };
  },
  () => null,
);
export const POST = workshopRoute({ area: "bench", action: "change" }, kind, "There is no such instrument.", (request) => tell(request));
