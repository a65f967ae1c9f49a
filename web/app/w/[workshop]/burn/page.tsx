import { z } from "zod";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { listTrials } from "@/server/trials";
import { Trials } from "@/stations/burn/trials";

export const metadata = { title: "Burn" };

export default async function BurnPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await here();
  const asked = await askedOf(searchParams, { after: z.coerce.number().int().positive() });
  return <Trials {...(await listTrials(db, workshop.id, asked, now))} narrowed={Boolean(asked.q)} />;
}
