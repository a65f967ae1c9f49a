import { benchTargets } from "@/features/bench/pot-targets";
import { Pots } from "@/features/bench/pots";
import { listInstruments, listPots } from "@/server/batches/batches";
import { potForecasts } from "@/server/batches/pot-forecast";
import { typicalCooling } from "@/server/batches/typical-cooling";
import { requestContext } from "@/server/http/context";
import { CURSOR_QUERY, parseQuery } from "@/server/http/query";

export const metadata = { title: "Bench" };

export default async function BenchPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, CURSOR_QUERY);
  const [list, instruments, typical] = await Promise.all([listPots(db, workshop.id, asked), listInstruments(db, workshop.id), typicalCooling(db, workshop.id)]);
  const forecasts = await potForecasts(benchTargets(list.batches, typical));
  return <Pots {...list} usual={typical} forecasts={forecasts} instruments={instruments} narrowed={Boolean(asked.q)} />;
}
