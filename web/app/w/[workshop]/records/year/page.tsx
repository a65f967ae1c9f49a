import { dayAt } from "@hearth/core";
import { z } from "zod";
import { Year } from "@/features/records/year";
import { yearMonths } from "@/server/batches/year";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";

export const metadata = { title: "The year" };

export default async function YearPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { year: z.coerce.number().int().min(1970).max(2200) });
  const thisYear = Number(dayAt(now, workshop.timeZone).slice(0, 4));
  const year = asked.year ?? thisYear;
  return <Year year={year} {...(await yearMonths(db, workshop, year))} handsCost={workshop.handsCost} thisYear={thisYear} />;
}
