import { notFound } from "next/navigation";
import { z } from "zod";
import { FormulaEditor } from "@/stations/formulas/editor";
import { readFormula } from "@/stations/formulas/read";
import { here } from "@/stations/frame/context";
import { readShelf, readStocks } from "@/stations/shelf/read";

export const metadata = { title: "Formula" };

export default async function FormulaPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await here();
  const [formula, shelf, stocks] = await Promise.all([readFormula(db, workshop.id, id), readShelf(db, workshop.id), readStocks(db, workshop.id)]);
  if (!formula) notFound();
  return (
    <FormulaEditor
      key={formula.id}
      formula={{ id: formula.id, name: formula.name, version: formula.version }}
      versions={formula.versions.map(({ id: versionId, number, spec, batches }) => ({ id: versionId, number, spec, batches }))}
      shelf={shelf}
      stocks={stocks}
    />
  );
}
