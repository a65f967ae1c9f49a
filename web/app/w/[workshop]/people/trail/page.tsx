import { here } from "@/server/context";
import { readTrail } from "@/server/people";
import { Trail } from "@/stations/people/trail";

export const metadata = { title: "Who changed what" };

export default async function Page({ searchParams }: { searchParams: Promise<{ before?: string }> }) {
  const { db, workshop } = await here();
  const before = Number((await searchParams).before);
  return <Trail {...(await readTrail(db, workshop.id, Number.isSafeInteger(before) && before > 0 ? before : null))} />;
}
