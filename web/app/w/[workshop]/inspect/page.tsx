import { InspectionList } from "@/features/inspect/list";
import { dueToLook, listBatches, listInstruments } from "@/server/batches/batches";
import { requestContext } from "@/server/http/context";
import { CURSOR_QUERY, parseQuery } from "@/server/http/query";

export const metadata = { title: "Inspect" };

export default async function InspectionPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, CURSOR_QUERY);
  const [list, due, instruments] = await Promise.all([
    listBatches(db, workshop.id, ["rack"], asked, now),
    asked.after || asked.before || asked.q ? [] : dueToLook(db, workshop.id, now),
    listInstruments(db, workshop.id),
  ]);
  return <InspectionList {...list} due={due} instruments={instruments} narrowed={Boolean(asked.q)} />;
}
