import { z } from "zod";
import { listBatches, listInstruments } from "@/server/batches";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { Records } from "@/stations/records/records";

export const metadata = { title: "Records" };

export default async function RecordsPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const asked = await askedOf(searchParams, { after: z.string().max(120), state: z.enum(["closed", "abandoned"]) });
  const { state, ...rest } = asked;
  const [list, instruments] = await Promise.all([
    listBatches(db, workshop.id, state ? [state] : ["closed", "abandoned"], rest),
    listInstruments(db, workshop.id),
  ]);
  return <Records {...list} instruments={instruments} narrowed={Boolean(asked.q || state)} />;
}
