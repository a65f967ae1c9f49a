import { namedIn } from "@hearth/core";
import { here } from "@/server/context";
import { listProducts, newestSpecs } from "@/server/products";
import { readFewOf } from "@/server/shelf";
import { type DayFormula, DayPlan, type DayProduct } from "@/stations/plan/day";

export const metadata = { title: "A day at the pots" };

export default async function DayPage() {
  const { db, workshop } = await here();
  const products = (await listProducts(db, workshop.id)).filter((one) => !one.putAway);
  const specs = await newestSpecs(
    db,
    workshop.id,
    products.map((one) => one.formulaId),
  );
  const shelf = await readFewOf(
    db,
    workshop.id,
    products.map((one) => one.bodyId),
    0,
  );
  const made = products.flatMap((one): DayProduct[] => {
    const vessel = shelf.vessels.find((other) => other.id === one.bodyId);
    const mould = shelf.moulds.find((other) => other.id === one.bodyId);
    const fillMg = vessel?.workingFillMg ?? mould?.fillMg;
    return fillMg && specs.has(one.formulaId) ? [{ id: one.id, name: one.name, formulaId: one.formulaId, fillMg }] : [];
  });
  const formulas = Object.fromEntries(
    [...specs].map(([id, spec]): [string, DayFormula] => [
      id,
      { name: products.find((one) => one.formulaId === id)?.formulaName ?? "", process: spec.process, components: namedIn(spec).length },
    ]),
  );
  return <DayPlan products={made} formulas={formulas} />;
}
