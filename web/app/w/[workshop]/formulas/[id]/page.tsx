import { namedIn } from "@hearth/core";
import { notFound } from "next/navigation";
import { z } from "zod";
import { Notebook } from "@/catalogue/notebook";
import { listColours } from "@/server/colours";
import { here } from "@/server/context";
import { readFormula } from "@/server/formulas";
import { notesOf } from "@/server/notes";
import { listProcesses } from "@/server/processes";
import { fewFor } from "@/server/shelf";
import { FormulaEditor } from "@/stations/formulas/editor";

export const metadata = { title: "Formula" };

export default async function FormulaPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await here();
  const [formula, processes, colours, notes] = await Promise.all([
    readFormula(db, workshop.id, id),
    listProcesses(db, workshop.id),
    listColours(db, workshop.id),
    notesOf(db, workshop.id, "formula", id),
  ]);
  if (!formula) notFound();
  const named = [...formula.versions.flatMap(({ spec }) => namedIn(spec)), ...colours.flatMap((one) => one.recipe.dyes.map((dye) => dye.id))];
  return (
    <FormulaEditor
      key={formula.id}
      formula={{ id: formula.id, name: formula.name, version: formula.version }}
      versions={formula.versions.map(({ id: versionId, number, spec, batches }) => ({ id: versionId, number, spec, batches }))}
      few={await fewFor(db, workshop, [...new Set(named)])}
      processes={processes}
      colours={colours}
      notes={<Notebook kind="formula" of={id} notes={notes} />}
    />
  );
}
