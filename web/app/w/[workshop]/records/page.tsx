import { z } from "zod";
import { Records } from "@/features/records/records";
import { listBatches, listInstruments } from "@/server/batches/batches";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";

export const metadata = { title: "Records" };

export default async function RecordsPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, { after: z.string().max(120), state: z.enum(["closed", "abandoned"]) });
  const { state, ...rest } = asked;
  const [list, instruments] = await Promise.all([
    listBatches(db, workshop.id, state ? [state] : ["closed", "abandoned"], rest),
    listInstruments(db, workshop.id),
  ]);
  return <Records {...list} instruments={instruments} narrowed={Boolean(asked.q || state)} />;
}
