import { sql } from "drizzle-orm";
import { databaseWithoutTenant } from "@/data/client";
import { diskHasRoom } from "@/server/operation/disk";

export const dynamic = "force-dynamic";

/** Whether the program can read and write: `disk` is "full" where hardly any room is left. */
export async function GET(): Promise<Response> {
  const version = process.env.HEARTH_VERSION ?? "unknown";
  const room = await diskHasRoom();
  const disk = room === null ? {} : { disk: room ? "ok" : "full" };
  try {
    await databaseWithoutTenant().execute(sql`select 1`);
    return Response.json({ ok: room !== false, database: "up", ...disk, version }, { status: room === false ? 503 : 200 });
  } catch {
    return Response.json({ ok: false, database: "away", ...disk, version }, { status: 503 });
  }
}
