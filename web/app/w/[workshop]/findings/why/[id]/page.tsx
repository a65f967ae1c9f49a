import { notFound } from "next/navigation";
import { z } from "zod";
import { Diagnosis } from "@/features/findings/diagnosis";
import { diagnoseBatch } from "@/server/findings/diagnosis";
import { readCustomCauses } from "@/server/findings/rules";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";

export const metadata = { title: "Why this flaw?" };

export default async function WhyPage({ params, searchParams }: { params: Promise<{ id: string }>; searchParams: Promise<Record<string, string | string[]>> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { flaw: z.string().max(60) });
  const [why, causes] = await Promise.all([diagnoseBatch(db, workshop.id, id, asked.flaw, now), readCustomCauses(db, workshop.id)]);
  if (!why) notFound();
  return <Diagnosis why={why} causes={causes} />;
}
