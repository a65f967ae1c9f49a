import { notFound } from "next/navigation";
import { z } from "zod";
import { StrongerThrow } from "@/features/products/stronger-throw";
import { requestContext } from "@/server/http/context";
import { throwLadder } from "@/server/products/throw-ladder";

export const metadata = { title: "Stronger throw" };

export default async function StrongerThrowPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await requestContext();
  const ladder = await throwLadder(db, workshop, id);
  if (!ladder) notFound();
  return <StrongerThrow ladder={ladder} />;
}
