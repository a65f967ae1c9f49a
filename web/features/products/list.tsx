"use client";

import type { FormulaSpec, Rates } from "@hearth/core";
import { FindBar, NothingFound, Pages, PUT_AWAY } from "@/catalogue/find-bar";
import { Tidy } from "@/catalogue/tidy";
import type { Shelf, Stocks } from "@/server/inventory/shelf";
import type { Product } from "@/server/products/products";
import { Link } from "@/ui/address";
import { commonScale, JarSection } from "@/ui/jar-section";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { containerOf, nameIn, reckon, TEST_WORDS } from "./model";

interface Props {
  products: Product[];
  specs: Record<string, FormulaSpec>;
  shelf: Shelf;
  stocks: Stocks;
  rates: Rates;
  found: number;
  page: number;
  pages: number;
  narrowed: boolean;
}

/** The list of products: each with its section, cost, margin, and whether its wick is tested. */
export function ProductList({ products, specs, shelf, stocks, rates, found, page, pages, narrowed }: Props) {
  const units = useUnits();
  const scale = commonScale(
    products.flatMap((product) => containerOf(shelf, product) ?? []),
    56,
    72,
  );
  const add = (
    <Link className="action-button" href="/products/new" data-next-step>
      Make a product
    </Link>
  );
  return (
    <PageLayout
      title="Products"
      lead="What you sell: a formula in a vessel or mold, with a wick and a price."
      actions={products.length > 0 || narrowed ? add : null}
      side={
        <>
          <Aside title="Cost and price">
            The unit cost comes from the oldest lots, with vessel, wicks and packaging. Labor and energy are included if the workshop has hourly costs.
          </Aside>
          <Aside title="Testing the wick">
            A change of scent, or of load by more than a point, can need another wick. The product's test is then due again.
          </Aside>
        </>
      }
    >
      {products.length > 0 || narrowed ? (
        <FindBar
          what="products"
          found={found}
          filters={[
            {
              key: "test",
              label: "Wick",
              options: [{ value: "", label: "all" }, ...Object.entries(TEST_WORDS).map(([value, label]) => ({ value, label }))],
            },
            PUT_AWAY,
          ]}
        />
      ) : null}
      {products.length === 0 && narrowed ? (
        <NothingFound what="product" />
      ) : products.length === 0 ? (
        <Empty title="No product yet" action={add}>
          <p>
            A product puts a formula into a vessel, with its wick and its price. Plans then need only its name and a count, and each batch shows its unit cost
            and margin.
          </p>
        </Empty>
      ) : (
        <ul>
          {products.map((product) => {
            const spec = specs[product.formulaId];
            const worked = spec ? reckon(product, spec, shelf, stocks, rates) : null;
            return (
              <li
                key={product.id}
                className="grid items-center gap-x-4 gap-y-1 border-b border-line py-2 sm:grid-cols-[72px_minmax(0,1fr)_120px_140px_88px_48px]"
              >
                <div className="flex justify-center max-sm:hidden">
                  {worked ? (
                    <JarSection
                      {...worked.container}
                      wicks={product.wickId ? product.wicks : 0}
                      headspaceUm={null}
                      fillMg={worked.container.workingFillMg}
                      scale={scale}
                    />
                  ) : null}
                </div>
                <div className="min-w-0">
                  <Link href={`/products/${product.id}`} className="text-[18px] font-bold">
                    {product.name}
                  </Link>
                  <div className="text-[15px] text-soft">
                    {product.formulaName} in {nameIn(shelf, product.containerId)}
                    {product.wickId ? `, ${product.wicks > 1 ? `${product.wicks} × ` : ""}${nameIn(shelf, product.wickId)}` : ", no wick"}
                  </div>
                  <div
                    className={`text-[14px] font-semibold ${product.wickTest === "failed" ? "text-safety" : product.wickTest === "tested" ? "text-inside" : "text-soft"}`}
                  >
                    {product.wickId ? `${product.wickTest === "tested" ? "✓ " : product.wickTest === "failed" ? "⚠ " : ""}${TEST_WORDS[product.wickTest]}` : ""}
                  </div>
                </div>
                <div className="sm:text-right">
                  <span className="figure text-[24px]">{worked?.enough ? worked.enough.n : "–"}</span>
                  <span className="block text-[13px] leading-tight text-soft">
                    {worked?.enough ? `until ${nameIn(shelf, worked.enough.by)} runs out` : "not tracked"}
                  </span>
                </div>
                <div className="sm:text-right">
                  <span className="figure text-[24px]">{product.price === null ? "–" : units.money(product.price)}</span>
                  <span className="block text-[13px] leading-tight text-soft">
                    {product.pack > 1 ? `for ${product.pack}, ` : ""}
                    {worked && worked.cost > 0 ? `one costs ${units.money(worked.cost)}` : "cost not known"}
                    {worked?.margin ? `, ${units.n(worked.margin.share * 100, 0)} % margin` : ""}
                  </span>
                </div>
                <Link className="press" href={`/plan?product=${product.id}`} aria-label={`Plan a batch: ${product.name}`}>
                  Plan a batch
                </Link>
                <Tidy kind="product" id={product.id} name={product.name} away={product.archived} path={(id) => `/products/${id}`} />
              </li>
            );
          })}
        </ul>
      )}
      <Pages page={page} pages={pages} />
    </PageLayout>
  );
}
