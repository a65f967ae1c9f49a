import { z } from "zod";
import { compareBatches } from "@/server/compare";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { Compare } from "@/stations/findings/compare";

export const metadata = { title: "Two batches side by side" };

const number = z.coerce.number().int().min(1).max(999_999_999);

export default async function ComparePage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const { a, b } = await askedOf(searchParams, { a: number, b: number });
  const compared = a && b ? await compareBatches(db, workshop.id, [a, b], workshop.temperatureUnit) : null;
  return <Compare key={`${a} ${b}`} compared={compared} asked={{ a: a ? String(a) : "", b: b ? String(b) : "" }} />;
}
