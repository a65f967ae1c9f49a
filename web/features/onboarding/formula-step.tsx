"use client";

import { loadOfTotal, parseLoad } from "@hearth/core";
import { useMemo, useState } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { Field, type FieldRule, named } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { saveFormula } from "@/server/formulas/formula-save";
import { saveProduct } from "@/server/products/commands";
import type { First } from "@/server/workshops/onboarding";
import { useUnits } from "@/ui/units";
import { specOf, suggestionFor } from "./model";
import { type Rules, type Saved, StepForm } from "./steps";

/** The formula, and the product that is made by it: both are named already, and its price can wait. */
export function Formula({ first }: { first: First }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const [freshId] = useState(() => v7());
  const [productId] = useState(() => v7());
  const { process, loadPpm: load } = useMemo(() => suggestionFor(first, units.temperature), [first, units.temperature]);
  const rules = useMemo(
    (): Rules => ({
      name: named("the formula", `${first.fragrance?.name ?? ""} in ${first.wax?.name ?? ""}`.slice(0, 120)) as FieldRule<unknown>,
      product: named("the product", `${first.fragrance?.name ?? ""}, ${first.vessel?.name ?? ""}`.slice(0, 120)) as FieldRule<unknown>,
      load: { initial: String(load / 10_000), parse: (text) => parseLoad(text, "wax"), echo: (ppm) => units.percent(ppm as number, 4) },
    }),
    [first.fragrance?.name, first.wax?.name, first.vessel?.name, load, units],
  );
  const saveProductOf = async (formulaId: string, name: unknown): Promise<Saved> => {
    if (!first.vessel || first.product) return { ok: true };
    const out = await callAction(
      saveProduct(workshop, {
        id: productId,
        expectedVersion: null,
        name,
        formulaId,
        container: "vessel",
        containerId: first.vessel.id,
        wickId: first.wick?.id ?? null,
        wicks: 1,
        price: null,
        soldBy: "piece",
        pack: 1,
        packCost: null,
        handsSeconds: null,
        heatSeconds: null,
      }),
    );
    return out.ok ? { ok: true } : { ok: false, message: out.message, fields: out.fields.name ? { product: out.fields.name } : {} };
  };
  return (
    <StepForm
      rules={rules}
      button="Save formula and product"
      onSave={async ({ name, product, load: wanted }) => {
        if (first.formula) return saveProductOf(first.formula.id, product);
        const spec = specOf(first, wanted as number, units.temperature);
        if (!spec) return { ok: false, message: "A wax and a scent come first.", fields: {} };
        const out = await callAction(saveFormula(workshop, { id: null, freshId, expectedVersion: null, name, spec }));
        if (!out.ok) return { ok: false, message: out.message, fields: { ...out.fields, ...(out.fields.fragrance ? { load: out.fields.fragrance } : {}) } };
        return saveProductOf(out.value.id, product);
      }}
    >
      {(fields) => {
        const ppm = fields.values.load as number | undefined;
        return (
          <>
            <div className="grid gap-x-5 sm:grid-cols-[minmax(0,1fr)_220px]">
              <div>
                <Field label="Name of the formula" {...fields.bind("name")} />
                <Field
                  label="Name of the product"
                  {...fields.bind("product")}
                  hint="What you sell: this formula in this jar with this wick. Its price can come later."
                />
              </div>
              <Field label="Fragrance" unit="% of the wax" {...fields.bind("load")} large inputMode="decimal" />
            </div>
            {ppm === undefined ? null : (
              <p className="bg-paper px-3 py-2">
                To every {units.g(units.mass === "g" ? 100_000 : 453_592)} of wax{" "}
                <span className="figure text-[26px]">{units.about(((units.mass === "g" ? 100_000 : 453_592) * ppm) / 1_000_000)}</span> of oil. Other makers may
                call this {units.percent(loadOfTotal({ basis: "wax", loadPpm: ppm }, { additives: [], dyes: [] }) ?? 0)}, as a share of the total. Here it is
                always a share of the wax.
              </p>
            )}
            <p className="mt-2 text-[15px] text-soft">
              Process: “{process.name}”: {process.reason} You can change it later.
            </p>
          </>
        );
      }}
    </StepForm>
  );
}
