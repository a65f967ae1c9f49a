import { notFound } from "next/navigation";
import { z } from "zod";
import { here } from "@/server/context";
import { readOwnCauses } from "@/server/finding-rules";
import { askedOf } from "@/server/query";
import { whyOf } from "@/server/why";
import { WhyView } from "@/stations/findings/why";

export const metadata = { title: "Why did it do that?" };

export default async function WhyPage({ params, searchParams }: { params: Promise<{ id: string }>; searchParams: Promise<Record<string, string | string[]>> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop, now } = await here();
  const asked = await askedOf(searchParams, { flaw: z.string().max(60) });
  const [why, causes] = await Promise.all([whyOf(db, workshop.id, id, asked.flaw, now), readOwnCauses(db, workshop.id)]);
  if (!why) notFound();
  return <WhyView why={why} causes={causes} />;
}
