import { ProductEditor } from "@/features/products/editor";
import { requestContext } from "@/server/http/context";
import { pickList } from "@/server/inventory/shelf";
import { readRates } from "@/server/products/rates";
import { formulaNames } from "@/server/workshops/search-index";

export const metadata = { title: "New product" };

export default async function NewProductPage() {
  const { db, workshop } = await requestContext();
  const [few, formulas] = await Promise.all([pickList(db, workshop, []), formulaNames(db, workshop.id, 12)]);
  return <ProductEditor product={null} spec={null} formulas={formulas} few={few} rates={await readRates(db, workshop)} />;
}
