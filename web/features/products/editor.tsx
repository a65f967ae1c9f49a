"use client";

import { Field } from "@/forms/fields";
import { Link } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { Aside, Caution, PageLayout, Warn } from "@/ui/side-notes";
import { DUE_WORDS } from "./model";
import { HowItIsPacked, HowItIsSold, Section, WhatItIs, WhatOneCosts, WickTest } from "./panels";
import { type ProductProps, useProduct, useProductSaving } from "./use-product";

/** Makes or changes a product: what it is, what it costs, what it is sold for, and how its wick did. */
export function ProductEditor(props: ProductProps) {
  const { product, formulas, rates } = props;
  const state = useProduct(props);
  const saving = useProductSaving(state);
  const { fields, draft, due, wickless, chosenWick, now, known } = state;
  return (
    <PageLayout
      title={product ? product.name : "New product"}
      lead="A formula in a vessel or mold, with its wick, its price and its pack."
      actions={
        <>
          {product ? (
            <>
              {product.wickId ? (
                <Link className="press" href={`/products/${product.id}/throw`}>
                  Stronger throw
                </Link>
              ) : null}
              <Link className="press" href={`/sell/labels?product=${product.id}`}>
                Labels
              </Link>
              <Link className="press" href={`/plan?product=${product.id}`}>
                Plan a batch
              </Link>
            </>
          ) : null}
          <button type="submit" form="product-form" className="action-button" data-next-step disabled={saving.busy}>
            {saving.busy ? "Saving" : "Save the product"}
          </button>
        </>
      }
      side={
        <>
          {draft.offer}
          {due.length > 0 ? <Warn>Test the wick again: {due.map((dueReason) => DUE_WORDS[dueReason]).join(", ")}.</Warn> : null}
          {wickless && chosenWick ? <Warn>Melts and molded pieces without a flame take no wick.</Warn> : null}
          {now.wickTest === "failed" ? <Caution title="Its wick failed">Do not sell it with this wick. Change the wick, and test again.</Caution> : null}
          <Aside title="The price is of a pack">A pack of one is a single candle. Tealights in sixes are a pack of six.</Aside>
          <Aside title="Test data is not a safety certificate">Burn tests, labels and your local rules decide what may be sold.</Aside>
        </>
      }
    >
      <form
        id="product-form"
        ref={fields.form}
        className="grid grid-cols-1 gap-6 xl:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)]"
        onSubmit={(event) => {
          event.preventDefault();
          saving.save();
        }}
      >
        <section className="sheet">
          <WhatItIs state={state} formulas={known.whole?.formulas ?? formulas} faults={saving.faults} />
          <h2 className="mt-4 mb-2">How it is sold</h2>
          <HowItIsSold state={state} rates={rates} />
          <h2 className="mt-4 mb-2">How it is packed</h2>
          <HowItIsPacked state={state} />
          <Field label="Remarks" {...fields.bind("remarks")} lines={2} />
          <FormMessage>{saving.message}</FormMessage>
        </section>
        <div className="flex flex-col gap-6">
          <Section state={state} />
          <WhatOneCosts state={state} />
          <WickTest state={state} saving={saving} />
        </div>
      </form>
    </PageLayout>
  );
}
