import { sql } from "drizzle-orm";
import { v7 } from "uuid";
import { expect, it } from "vitest";
import { products } from "@/data/tables/product";
import { embeds, packs, wicks } from "@/data/tables/shelf";
import { lots } from "@/data/tables/stock";
import { SHELF_TABLES } from "@/server/inventory/tables";
import { readDemandPlan } from "@/server/planning/planning";
import { costsNow } from "@/server/sales/packing";
import { readWorkshop } from "@/server/workshops/workshops";
import { inStoredWorkshop, stored, test, workshopId } from "@/testing/stored-workshop";
import { readProduct, takenByProduct } from "./products";

inStoredWorkshop();

const [product, wick, box, label] = [v7(), v7(), v7(), v7()];
/** More of them than a form begins with. */
const pebbles = Array.from({ length: 30 }, () => v7());
const last = pebbles.at(-1) ?? "";

/** A cup of 14 g with two pebbles of 1 ml, in a box with a label. */
async function putProduct(): Promise<void> {
  await test.db.insert(embeds).values(pebbles.map((id, n) => ({ workshopId, id, name: `pebble ${n + 1}`, material: "stone", volumeUl: 1_000 })));
  await test.db.insert(wicks).values({ workshopId, id: wick, name: "cord five", kind: "flat-braid cotton", size: "5" });
  await test.db.insert(packs).values([
    { workshopId, id: box, name: "pebble box", kind: "box" },
    { workshopId, id: label, name: "pebble label", kind: "label" },
  ]);
  await test.db.insert(products).values({
    ...{
      workshopId,
      id: product,
      name: "Pebble cup",
      formulaId: stored.formula,
      container: "vessel" as const,
      containerId: stored.vessel,
      wickId: wick,
      price: 900,
    },
    embeds: [{ id: last, count: 2 }],
    packaging: { boxId: box, parts: [{ id: label, count: 1 }] },
  });
}

it("a product takes from the shelf all that its row names there, in columns of its own or within them", async () => {
  await putProduct();
  const row = JSON.stringify(await readProduct(test.db, workshopId, product));
  const onShelf = (
    await Promise.all(
      Object.values(SHELF_TABLES).map((table) => test.db.execute<{ id: string }>(sql`select id::text from ${table} where workshop_id = ${workshopId}`)),
    )
  ).flatMap(({ rows }) => rows.map(({ id }) => id));
  const named = onShelf.filter((id) => row.includes(id));
  expect(named.length).toBe(5);
  const read = await readProduct(test.db, workshopId, product);
  expect(read && takenByProduct(read).sort()).toEqual(named.sort());
});

it("is planned and costed with what is laid in, however many others are on the shelf", async () => {
  await putProduct();
  const workshop = await readWorkshop(workshopId);
  if (!workshop) throw new Error("no workshop");
  const { products: planned, made } = await readDemandPlan(test.db, workshop, 20);
  expect(made.find((item) => item.product.id === product)?.container.embeds).toEqual([{ embedId: last, name: "pebble 30", count: 2, volumeUl: 1_000 }]);
  // By hand: 14 g less 2 ml × 0.9 g/ml.
  expect(planned.find((item) => item.id === product)?.fillMg).toBe(12_200);
  const costOf = async () => (await costsNow({ db: test.db, workshop }, [product])).get(product) ?? null;
  const lot = (kind: "wax" | "fragrance" | "embed" | "vessel" | "wick" | "pack", materialId: string, cost: number) => ({
    workshopId,
    id: v7(),
    kind,
    materialId,
    amount: kind === "wax" || kind === "fragrance" ? 1_000_000 : 100,
    cost,
    receivedOn: "2026-01-02",
  });
  await test.db
    .insert(lots)
    .values([
      lot("wax", stored.wax, 0),
      lot("fragrance", stored.oil, 0),
      lot("vessel", stored.vessel, 0),
      lot("wick", wick, 0),
      lot("pack", box, 0),
      lot("pack", label, 0),
    ]);
  // Nobody has said yet what a pebble costs.
  expect(await costOf()).toBeNull();
  await test.db.insert(lots).values(lot("embed", last, 500));
  const cheap = await costOf();
  await test.db.update(lots).set({ cost: 1_500 }).where(sql`material_id = ${last}`);
  // Two pebbles at 15 instead of 5.
  expect([cheap === null, ((await costOf()) ?? 0) - (cheap ?? 0)]).toEqual([false, 20]);
});

it("that has no room for wax is listed with what is wanted all the same: the plan of its batch says so", async () => {
  await putProduct();
  await test.db
    .update(products)
    .set({ embeds: [{ id: last, count: 100 }] })
    .where(sql`id = ${product}`);
  const workshop = await readWorkshop(workshopId);
  if (!workshop) throw new Error("no workshop");
  const { products: planned } = await readDemandPlan(test.db, workshop, 20);
  expect(planned.find((item) => item.id === product)?.fillMg).toBeGreaterThan(0);
});
