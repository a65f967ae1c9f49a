import { namedIn } from "@hearth/core";
import { notFound } from "next/navigation";
import { z } from "zod";
import { Notebook } from "@/catalogue/notebook";
import { FormulaEditor } from "@/features/formulas/editor";
import { listColors } from "@/server/formulas/colors";
import { readFormula } from "@/server/formulas/formulas";
import { listOilTests } from "@/server/formulas/oil-tests";
import { listProcesses } from "@/server/formulas/processes";
import { requestContext } from "@/server/http/context";
import { pickList } from "@/server/inventory/shelf";
import { notesOf } from "@/server/workshops/notes";

export const metadata = { title: "Formula" };

export default async function FormulaPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await requestContext();
  const [formula, processes, colors, notes] = await Promise.all([
    readFormula(db, workshop.id, id),
    listProcesses(db, workshop.id),
    listColors(db, workshop.id),
    notesOf(db, workshop.id, "formula", id),
  ]);
  if (!formula) notFound();
  const named = [...formula.versions.flatMap(({ spec }) => namedIn(spec)), ...colors.flatMap((color) => color.recipe.dyes.map((dye) => dye.id))];
  return (
    <FormulaEditor
      key={formula.id}
      formula={{ id: formula.id, name: formula.name, version: formula.version }}
      versions={formula.versions.map(({ id: versionId, number, spec, batches }) => ({ id: versionId, number, spec, batches }))}
      few={await pickList(db, workshop, [...new Set(named)])}
      processes={processes}
      colors={colors}
      oilTests={await listOilTests(db, workshop.id)}
      notes={<Notebook kind="formula" of={id} notes={notes} />}
    />
  );
}
