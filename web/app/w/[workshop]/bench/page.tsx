import { z } from "zod";
import { listInstruments, listPots } from "@/server/batches";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { usualOf } from "@/server/usual";
import { Pots } from "@/stations/bench/pots";

export const metadata = { title: "Bench" };

export default async function BenchPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const asked = await askedOf(searchParams, { after: z.string().max(120) });
  const [list, instruments, usual] = await Promise.all([listPots(db, workshop.id, asked), listInstruments(db, workshop.id), usualOf(db, workshop.id)]);
  return <Pots {...list} usual={usual} instruments={instruments} narrowed={Boolean(asked.q)} />;
}
