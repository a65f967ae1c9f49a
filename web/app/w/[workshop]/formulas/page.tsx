import { z } from "zod";
import { FormulaList } from "@/features/formulas/list";
import { listFormulas } from "@/server/formulas/formulas";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { namesOf } from "@/server/inventory/shelf";

export const metadata = { title: "Formulas" };

export default async function FormulasPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, { family: z.string().max(40), order: z.enum(["changed"]), away: z.literal("1") });
  const { formulas, found, pages } = await listFormulas(db, workshop.id, { ...asked, away: asked.away === "1" });
  const names = await namesOf(
    db,
    workshop.id,
    formulas.flatMap((formula) => [...formula.spec.waxes, ...formula.spec.fragrances].map((part) => part.id)),
  );
  const narrowed = Boolean(asked.q || asked.family || asked.away);
  return <FormulaList formulas={formulas} names={names} found={found} page={Math.min(asked.page ?? 1, pages)} pages={pages} narrowed={narrowed} />;
}
