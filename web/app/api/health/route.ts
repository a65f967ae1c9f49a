import { sql } from "drizzle-orm";
import { database } from "@/data/client";

export const dynamic = "force-dynamic";

export async function GET(): Promise<Response> {
  const version = process.env.HEARTH_VERSION ?? "unknown";
  try {
    await database().execute(sql`select 1`);
    return Response.json({ ok: true, database: "up", version });
  } catch {
    return Response.json({ ok: false, database: "away", version }, { status: 503 });
  }
}
