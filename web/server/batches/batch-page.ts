import { notFound } from "next/navigation";
import { z } from "zod";
import { requestContext } from "@/server/http/context";
import { listInstruments, readBatch } from "./batches";

/** Returns what every page of one batch is given; a page that says so where there is none. */
export async function batchProps(params: Promise<{ id: string }>) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop, people } = await requestContext();
  const [batch, instruments] = await Promise.all([readBatch(db, workshop.id, id), listInstruments(db, workshop.id)]);
  if (!batch) notFound();
  return { people, instruments, batch };
}
