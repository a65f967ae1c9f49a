import { notFound } from "next/navigation";
import { z } from "zod";
import { here } from "@/server/context";
import { followersOf, readProcess } from "@/server/processes";
import { ProcessEditor } from "@/stations/formulas/process-editor";

export const metadata = { title: "Process" };

export default async function ProcessPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await here();
  const kept = await readProcess(db, workshop.id, id);
  if (!kept) notFound();
  return <ProcessEditor key={kept.id} kept={kept} followers={await followersOf(db, workshop.id, kept.id, kept.versions)} />;
}
