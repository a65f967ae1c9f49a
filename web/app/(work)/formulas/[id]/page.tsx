import { namedIn } from "@hearth/core";
import { notFound } from "next/navigation";
import { z } from "zod";
import { here } from "@/server/context";
import { readFormula } from "@/server/formulas";
import { listProcesses } from "@/server/processes";
import { fewFor } from "@/server/shelf";
import { FormulaEditor } from "@/stations/formulas/editor";

export const metadata = { title: "Formula" };

export default async function FormulaPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await here();
  const [formula, processes] = await Promise.all([readFormula(db, workshop.id, id), listProcesses(db, workshop.id)]);
  if (!formula) notFound();
  const named = formula.versions.flatMap(({ spec }) => namedIn(spec));
  return (
    <FormulaEditor
      key={formula.id}
      formula={{ id: formula.id, name: formula.name, version: formula.version }}
      versions={formula.versions.map(({ id: versionId, number, spec, batches }) => ({ id: versionId, number, spec, batches }))}
      few={await fewFor(db, workshop, [...new Set(named)])}
      processes={processes}
    />
  );
}
