import { formulaNames } from "@/server/catalogue";
import { here } from "@/server/context";
import { fewFor } from "@/server/shelf";
import { ProductEditor } from "@/stations/products/editor";

export const metadata = { title: "New product" };

export default async function NewProductPage() {
  const { db, workshop } = await here();
  const [few, formulas] = await Promise.all([fewFor(db, workshop, []), formulaNames(db, workshop.id, 12)]);
  return <ProductEditor product={null} spec={null} formulas={formulas} few={few} rates={{ handsCost: workshop.handsCost, heatCost: workshop.heatCost }} />;
}
