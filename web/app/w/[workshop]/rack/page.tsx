import { z } from "zod";
import { Rack } from "@/features/rack/rack";
import { listInstruments, listRack } from "@/server/batches/batches";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";

export const metadata = { title: "Rack" };

export default async function RackPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { after: z.string().max(120), state: z.enum(["setting", "look", "curing", "ready"]) });
  const [list, instruments] = await Promise.all([listRack(db, workshop.id, asked, now), listInstruments(db, workshop.id)]);
  return <Rack {...list} instruments={instruments} narrowed={Boolean(asked.q || asked.state)} />;
}
