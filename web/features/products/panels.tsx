"use client";

import { CONTAINER_NAMES, LABEL_CONTAINERS, type Rates } from "@hearth/core";
import { useState } from "react";
import { AddBeside } from "@/catalogue/add-beside";
import { EmbedFields } from "@/catalogue/embed-fields";
import { PackagingFields } from "@/catalogue/packaging-fields";
import { Chooser } from "@/forms/chooser";
import { Field } from "@/forms/fields";
import { Link } from "@/ui/address";
import { JarSection } from "@/ui/jar-section";
import { useUnits } from "@/ui/units";
import { nameIn, TEST_WORDS } from "./model";
import type { ProductProps, ProductSaving, ProductState } from "./use-product";

/** What a product is: its name, formula, vessel or mold, and wick. */
export function WhatItIs({ state, formulas, faults }: { state: ProductState; formulas: ProductProps["formulas"]; faults: Record<string, string> }) {
  const { product, fields, known, formulaId, setFormulaId, containers, containerId, chooseContainer, chosenWick, wickOptions, wickId, setWickId, suited } =
    state;
  const [adding, setAdding] = useState<{ kind: "vessel" | "wick"; name: string } | null>(null);
  return (
    <>
      <h2 className="mb-2">Basics</h2>
      <Field label="Name" {...fields.bind("name")} autoFocus={!product} />
      <div className="grid gap-x-4 sm:grid-cols-2">
        <Chooser
          label="Formula"
          value={formulaId}
          options={formulas.map((formula) => ({ value: formula.id, name: formula.name }))}
          onLook={known.look}
          onValue={setFormulaId}
          error={faults.formulaId ?? ""}
        />
        <Chooser
          label="Vessel or mold"
          value={containerId}
          options={containers}
          onLook={known.look}
          onValue={chooseContainer}
          error={faults.containerId ?? ""}
          add={{ label: "a new vessel", run: (name) => setAdding({ kind: "vessel", name }) }}
        />
        <Chooser
          label="Wick"
          value={chosenWick}
          options={wickOptions}
          onLook={known.look}
          onValue={setWickId}
          error={faults.wickId ?? ""}
          hint={wickId === null && suited[0] ? "Suits the diameter; the burn test decides." : undefined}
          add={{ label: "a new wick", run: (name) => setAdding({ kind: "wick", name }) }}
        />
        {chosenWick ? <Field label="Wicks in one" {...fields.bind("wicks")} inputMode="numeric" /> : <span />}
      </div>
      <EmbedFields
        value={state.embeds}
        onValue={state.setEmbeds}
        embeds={known.shelf.embeds}
        stocks={known.stocks}
        onLook={known.look}
        error={faults.embeds ?? ""}
      />
      {adding ? (
        <AddBeside
          kind={adding.kind}
          name={adding.name}
          waxes={known.shelf.waxes}
          onDone={() => setAdding(null)}
          onMade={async (id) => {
            await known.again();
            if (adding.kind === "vessel") chooseContainer(id);
            else setWickId(id);
            setAdding(null);
          }}
        />
      ) : null}
    </>
  );
}

/** For how much, by what and in packs of how many it is sold, and what a piece takes beside its materials. */
export function HowItIsSold({ state: { fields }, rates }: { state: ProductState; rates: Rates }) {
  const units = useUnits();
  return (
    <div className="grid gap-x-4 sm:grid-cols-2">
      <Field label="Price per pack" unit={units.currency} {...fields.bind("price")} inputMode="decimal" />
      <Field label="Candles per pack" {...fields.bind("pack")} inputMode="numeric" />
      <Field
        label="Sold by"
        {...fields.bind("soldBy")}
        options={[
          { value: "piece", label: "the piece" },
          { value: "weight", label: "weight: never below the net weight" },
        ]}
      />
      <Field label="Packing cost per pack" unit={units.currency} {...fields.bind("packCost")} inputMode="decimal" hint="Besides the parts below." />
      <Field label="Labor per candle" unit="min" {...fields.bind("hands")} hint={rates.handsCost === null ? "Needs the labor cost per hour." : undefined} />
      <Field label="Energy per candle" unit="min" {...fields.bind("heat")} hint={rates.heatCost === null ? "Needs the labor cost per hour." : undefined} />
    </div>
  );
}

/** Boxes and parts of a pack, and what its warnings go by. */
export function HowItIsPacked({ state }: { state: ProductState }) {
  const { fields, known, packaging, setPackaging, packedContainer, chosenWick, container } = state;
  const { shelf, stocks, recentlyUsed } = known;
  return (
    <>
      <PackagingFields
        value={packaging}
        onValue={setPackaging}
        shelf={shelf}
        stocks={stocks}
        recentlyUsed={recentlyUsed}
        onLook={known.look}
        containers={packedContainer ? [packedContainer] : []}
        guessed={packedContainer?.guessed ?? false}
      />
      <div className="mt-3">
        <Field
          label="Safety warnings for"
          {...fields.bind("labelContainer")}
          options={[
            { value: "", label: `its container: ${CONTAINER_NAMES[chosenWick === "" ? "melt" : container === "mold" ? "pillar" : "container"]}` },
            ...LABEL_CONTAINERS.map((labelContainer) => ({ value: labelContainer, label: CONTAINER_NAMES[labelContainer] })),
          ]}
        />
      </div>
    </>
  );
}

/** The cross-section of a product with its fill and wick. */
export function Section({ state: { drawn, chosenWick, now } }: { state: ProductState }) {
  const units = useUnits();
  return (
    <section className="sheet flex flex-col items-center" aria-label="Section">
      {drawn ? (
        <>
          <JarSection
            {...drawn}
            wicks={chosenWick ? now.wicks : 0}
            headspaceUm={null}
            fillMg={drawn.workingFillMg}
            scale={Math.min(2.2, 190 / Math.max(drawn.heightUm / 1_000, drawn.innerTopUm / 1_000))}
          />
          <p>
            <span className="figure text-[30px]">{units.g(drawn.workingFillMg)}</span> <span className="text-soft">in one</span>
          </p>
        </>
      ) : (
        <p className="py-10 text-soft">Choose a vessel or mold to see a drawing.</p>
      )}
    </section>
  );
}

/** What one piece costs, and what is left of the price. */
export function WhatOneCosts({ state: { worked, now, known } }: { state: ProductState }) {
  const units = useUnits();
  const { shelf } = known;
  return (
    <section className="sheet" aria-label="Unit cost">
      <h2>Unit cost</h2>
      {worked && worked.cost > 0 ? (
        <>
          <dl>
            {worked.lines.map((line) => (
              <div key={line.what} className="flex items-baseline justify-between border-b border-line py-1">
                <dt>{line.what}</dt>
                <dd className="figure text-[19px]">{units.money(line.cost, line.cost < 100 ? 1 : 0)}</dd>
              </div>
            ))}
            <div className="flex items-baseline justify-between py-1">
              <dt className="font-semibold">one candle</dt>
              <dd className="figure text-[34px]">{units.money(worked.cost)}</dd>
            </div>
            {worked.margin ? (
              <div className="flex items-baseline justify-between border-t-2 border-ink py-1">
                <dt className="font-semibold">left of {units.money(now.price ?? 0)}</dt>
                <dd className={`figure text-[34px] ${worked.margin.left < 0 ? "text-hot" : "text-inside"}`}>
                  {units.money(worked.margin.left)} <span className="text-[18px]">{units.n(worked.margin.share * 100, 0)} %</span>
                </dd>
              </div>
            ) : null}
          </dl>
          {worked.unpriced.length > 0 ? (
            <p className="text-[14px] text-soft">Without {worked.unpriced.map((id) => nameIn(shelf, id)).join(", ")}: no lot with a cost.</p>
          ) : null}
        </>
      ) : (
        <p className="mt-1 text-soft">{worked ? "No cost yet: receive stock with its cost." : "Choose a formula and a vessel to see the unit cost."}</p>
      )}
    </section>
  );
}

/** How the wick did, and what is done about it. */
export function WickTest({ state: { product, chosenWick }, saving: { sayTest, busy } }: { state: ProductState; saving: ProductSaving }) {
  if (!product || !chosenWick) return null;
  return (
    <section className="sheet" aria-label="Wick test">
      <h2>{TEST_WORDS[product.wickTest]}</h2>
      <p className="mt-1 text-[15px] text-soft">
        After at least three sessions and a burn to the end, record how the wick did with this scent, load, wax and vessel.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Link className="press" href={`/burn/new?product=${product.id}`}>
          Design a burn trial
        </Link>
        {product.wickTest !== "tested" ? (
          <button type="button" className="press" disabled={busy} onClick={() => sayTest("tested")}>
            Passed
          </button>
        ) : null}
        {product.wickTest !== "failed" ? (
          <button type="button" className="press" disabled={busy} onClick={() => sayTest("failed")}>
            Failed
          </button>
        ) : null}
        {product.wickTest !== "test due" ? (
          <button type="button" className="press" disabled={busy} onClick={() => sayTest("test due")}>
            Retest
          </button>
        ) : null}
      </div>
    </section>
  );
}
