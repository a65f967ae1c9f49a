import {
  dueReasons,
  type EmbedChoice,
  type FormulaSpec,
  type LabelContainer,
  type Packaging,
  packagingDraw,
  readFormula,
  type TestedState,
  testedOf,
  type WickTest,
} from "@hearth/core";
import { and, count, desc, eq, ilike, inArray, isNotNull, or } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { products } from "@/data/tables/product";
import { containing, naturalSort } from "@/server/shared/natural-sort";

/** A product as it is listed and chosen. */
export interface Product {
  id: string;
  name: string;
  version: number;
  archived: boolean;
  formulaId: string;
  formulaName: string;
  container: "vessel" | "mold";
  containerId: string;
  wickId: string | null;
  wicks: number;
  embeds: EmbedChoice[] | null;
  price: number | null;
  soldBy: "piece" | "weight";
  pack: number;
  packCost: number | null;
  handsSeconds: number | null;
  heatSeconds: number | null;
  wickTest: WickTest;
  testedAs: TestedState | null;
  packaging: Packaging | null;
  labelContainer: LabelContainer | null;
  fillsRooms: { rooms: string[]; isTold: boolean } | null;
  remarks: string;
}

/** Returns the ids of all that a product takes from the shelf beside what its formula names: its container, wick and embeds, and the parts of its pack. */
export const takenByProduct = (product: Pick<Product, "containerId" | "wickId" | "embeds" | "packaging">): string[] => [
  product.containerId,
  ...(product.wickId ? [product.wickId] : []),
  ...(product.embeds ?? []).map((embed) => embed.id),
  ...packagingDraw(product.packaging, 1).map((part) => part.id),
];

const shown = {
  id: products.id,
  name: products.name,
  version: products.version,
  archived: products.archived,
  formulaId: products.formulaId,
  formulaName: formulas.name,
  container: products.container,
  containerId: products.containerId,
  wickId: products.wickId,
  wicks: products.wicks,
  embeds: products.embeds,
  price: products.price,
  soldBy: products.soldBy,
  pack: products.pack,
  packCost: products.packCost,
  handsSeconds: products.handsSeconds,
  heatSeconds: products.heatSeconds,
  wickTest: products.wickTest,
  testedAs: products.testedAs,
  packaging: products.packaging,
  labelContainer: products.labelContainer,
  fillsRooms: products.fillsRooms,
  remarks: products.remarks,
};

const from = (db: Database | Transaction) =>
  db
    .select(shown)
    .from(products)
    .innerJoin(formulas, and(eq(formulas.workshopId, products.workshopId), eq(formulas.id, products.formulaId)));

/** Returns all products by name; those of one formula where it is named. */
export const listProducts = (db: Database | Transaction, workshopId: string, formulaId?: string): Promise<Product[]> =>
  from(db)
    .where(and(eq(products.workshopId, workshopId), formulaId ? eq(products.formulaId, formulaId) : undefined))
    .orderBy(naturalSort(products.name));

const PAGE = 30;

/** Returns products a page at a time, by name. */
export async function findProducts(
  db: Database,
  workshopId: string,
  asked: { q?: string | undefined; test?: WickTest | undefined; away?: boolean | undefined; page?: number | undefined },
): Promise<{ products: Product[]; found: number; pages: number }> {
  const where = and(
    eq(products.workshopId, workshopId),
    eq(products.archived, asked.away ?? false),
    asked.q ? or(ilike(products.name, containing(asked.q)), ilike(formulas.name, containing(asked.q))) : undefined,
    asked.test ? and(eq(products.wickTest, asked.test), isNotNull(products.wickId)) : undefined,
  );
  const [total] = await db
    .select({ n: count() })
    .from(products)
    .innerJoin(formulas, and(eq(formulas.workshopId, products.workshopId), eq(formulas.id, products.formulaId)))
    .where(where);
  const found = total?.n ?? 0;
  const pages = Math.max(1, Math.ceil(found / PAGE));
  const rows = await from(db)
    .where(where)
    .orderBy(naturalSort(products.name), products.id)
    .limit(PAGE)
    .offset((Math.min(asked.page ?? 1, pages) - 1) * PAGE);
  return { products: rows, found, pages };
}

export async function readProduct(db: Database | Transaction, workshopId: string, id: string): Promise<Product | null> {
  const [row] = await from(db).where(and(eq(products.workshopId, workshopId), eq(products.id, id)));
  return row ?? null;
}

/** Marks the wick test of a formula's products as due where the formula has changed what was tested. Gives their names. */
export async function markTestsDue(tx: Transaction, workshopId: string, formulaId: string, spec: FormulaSpec): Promise<string[]> {
  const due: string[] = [];
  for (const product of await listProducts(tx, workshopId, formulaId)) {
    if (!product.testedAs || product.wickTest === "test due" || dueReasons(product.testedAs, testedOf(spec, product)).length === 0) continue;
    await tx
      .update(products)
      .set({ wickTest: "test due", version: product.version + 1 })
      .where(and(eq(products.workshopId, workshopId), eq(products.id, product.id)));
    due.push(product.name);
  }
  return due;
}

/** Returns what each of these formulas says now, by its id. */
export async function newestSpecs(db: Database | Transaction, workshopId: string, formulaIds: readonly string[]): Promise<Map<string, FormulaSpec>> {
  if (formulaIds.length === 0) return new Map();
  const rows = await db
    .selectDistinctOn([formulaVersions.formulaId], { formulaId: formulaVersions.formulaId, spec: formulaVersions.spec })
    .from(formulaVersions)
    .where(and(eq(formulaVersions.workshopId, workshopId), inArray(formulaVersions.formulaId, [...new Set(formulaIds)])))
    .orderBy(formulaVersions.formulaId, desc(formulaVersions.number));
  return new Map(rows.map((row) => [row.formulaId, readFormula(row.spec)]));
}
