import { here } from "@/server/context";
import { asSellable, insidesOf } from "@/server/goods";
import { listProducts } from "@/server/products";
import { fewFor } from "@/server/shelf";
import { SetEditor } from "@/stations/sell/set-editor";

export const metadata = { title: "New set" };

export default async function NewSetPage() {
  const { db, workshop } = await here();
  const products = (await listProducts(db, workshop.id)).filter((one) => !one.putAway);
  const [inside, few] = await Promise.all([insidesOf(db, workshop.id, products), fewFor(db, workshop, [])]);
  return <SetEditor set={null} products={products.map(asSellable)} inside={inside} few={few} />;
}
