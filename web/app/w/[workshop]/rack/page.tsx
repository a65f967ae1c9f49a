import { z } from "zod";
import { listInstruments, listRack } from "@/server/batches";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { Rack } from "@/stations/rack/rack";

export const metadata = { title: "Rack" };

export default async function RackPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await here();
  const asked = await askedOf(searchParams, { after: z.string().max(120), state: z.enum(["setting", "look", "curing", "ready"]) });
  const [list, instruments] = await Promise.all([listRack(db, workshop.id, asked, now), listInstruments(db, workshop.id)]);
  return <Rack {...list} instruments={instruments} narrowed={Boolean(asked.q || asked.state)} />;
}
