import { z } from "zod";
import { here } from "@/server/context";
import { listFormulas } from "@/server/formulas";
import { askedOf } from "@/server/query";
import { namesOf } from "@/server/shelf";
import { FormulaList } from "@/stations/formulas/list";

export const metadata = { title: "Formulas" };

export default async function FormulasPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const asked = await askedOf(searchParams, { family: z.string().max(40), order: z.enum(["changed"]), away: z.literal("1") });
  const { formulas, found, pages } = await listFormulas(db, workshop.id, { ...asked, away: asked.away === "1" });
  const names = await namesOf(
    db,
    workshop.id,
    formulas.flatMap((one) => [...one.spec.waxes, ...one.spec.fragrances].map((part) => part.id)),
  );
  const narrowed = Boolean(asked.q || asked.family || asked.away);
  return <FormulaList formulas={formulas} names={names} found={found} page={Math.min(asked.page ?? 1, pages)} pages={pages} narrowed={narrowed} />;
}
