import { notFound } from "next/navigation";
import { z } from "zod";
import { ProcessEditor } from "@/features/formulas/process-editor";
import { followersOf, readProcess } from "@/server/formulas/processes";
import { requestContext } from "@/server/http/context";

export const metadata = { title: "Process" };

export default async function ProcessPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await requestContext();
  const kept = await readProcess(db, workshop.id, id);
  if (!kept) notFound();
  return <ProcessEditor key={kept.id} kept={kept} followers={await followersOf(db, workshop.id, kept.id, kept.versions)} />;
}
