import { SetEditor } from "@/features/sell/set-editor";
import { requestContext } from "@/server/http/context";
import { pickList } from "@/server/inventory/shelf";
import { listProducts } from "@/server/products/products";
import { asSellable, insidesOf } from "@/server/sales/finished-goods";

export const metadata = { title: "New set" };

export default async function NewSetPage() {
  const { db, workshop } = await requestContext();
  const products = (await listProducts(db, workshop.id)).filter((product) => !product.archived);
  const [inside, few] = await Promise.all([insidesOf(db, workshop.id, products), pickList(db, workshop, [])]);
  return <SetEditor set={null} products={products.map(asSellable)} inside={inside} few={few} />;
}
