import { now } from "@/data/clock";

export const dynamic = "force-dynamic";

/** The workshop's time, so that a device can tell how far its own clock is off. */
export const GET = (): Response => Response.json({ now: now() }, { headers: { "cache-control": "no-store" } });
