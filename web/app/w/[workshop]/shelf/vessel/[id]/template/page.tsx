import { notFound } from "next/navigation";
import { z } from "zod";
import { WickTemplate } from "@/features/shelf/wick-template";
import { requestContext } from "@/server/http/context";
import { readShelf } from "@/server/inventory/shelf";

export const metadata = { title: "Centring template" };

export default async function TemplatePage({ params, searchParams }: { params: Promise<{ id: string }>; searchParams: Promise<{ wicks?: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await requestContext();
  const vessel = (await readShelf(db, workshop.id)).vessels.find((vessel) => vessel.id === id);
  if (!vessel) notFound();
  const asked = Number((await searchParams).wicks ?? vessel.wicks);
  return <WickTemplate vessel={vessel} wicks={asked === 3 ? 3 : asked === 2 ? 2 : 1} />;
}
