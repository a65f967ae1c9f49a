import { z } from "zod";
import { Trials } from "@/features/burn/trials";
import { listTrials } from "@/server/burn/trials";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";

export const metadata = { title: "Burn" };

export default async function BurnPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { after: z.coerce.number().int().positive() });
  return <Trials {...(await listTrials(db, workshop.id, asked, now))} narrowed={Boolean(asked.q)} />;
}
