import { z } from "zod";
import { listBatches, listInstruments } from "@/server/batches";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { Pots } from "@/stations/bench/pots";

export const metadata = { title: "Bench" };

export default async function BenchPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const asked = await askedOf(searchParams, { after: z.string().max(120) });
  const [list, instruments] = await Promise.all([listBatches(db, workshop.id, ["pot"], asked), listInstruments(db, workshop.id)]);
  return <Pots {...list} instruments={instruments} narrowed={Boolean(asked.q)} />;
}
