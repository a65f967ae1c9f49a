import { notFound } from "next/navigation";
import { z } from "zod";
import { here } from "../frame/context";
import { listInstruments, readBatch } from "./lists";
import type { BatchProps } from "./use-batch";

/** What every page of one batch is given; a page that says so where there is none. */
export async function batchProps(params: Promise<{ id: string }>): Promise<BatchProps> {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop, people, person, now } = await here();
  const [batch, instruments] = await Promise.all([readBatch(db, workshop.id, id, now), listInstruments(db, workshop.id)]);
  if (!batch) notFound();
  return {
    workshopId: workshop.id,
    personId: person?.id ?? null,
    people,
    instruments,
    batch: { id: batch.id, number: batch.number, formulaId: batch.formulaId, events: batch.events },
  };
}
