"use client";

import { useState } from "react";
import { VolumeNote } from "@/forms/amount";
import { Chooser } from "@/forms/chooser";
import { Field } from "@/forms/fields";
import { suggestedFirst } from "@/forms/matches";
import type { Product } from "@/server/products/products";
import { commonScale, JarSection } from "@/ui/jar-section";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { AddVessel } from "./add-vessel";
import type { FillLine } from "./fill-model";
import { FoundMix } from "./found-mix";
import type { FillState } from "./use-fill";

/** How much of what is there the mix uses: the dark part is used. */
function UsedBar({ have, left }: { have: number; left: number }) {
  const used = have > 0 ? Math.max(0, Math.min(1, 1 - left / have)) : 0;
  return (
    <div aria-hidden="true" className="mt-1 h-[10px] max-w-[320px] border-2 border-ink bg-wax">
      <div className="h-full bg-ink" style={{ width: `${used * 100}%` }} />
    </div>
  );
}

/** What the mix aims at, the search for it, and what was found. */
export function TheMix({ fill: { fields, solver, lines, fault, mixture, solved, formulas, spareNow } }: { fill: FillState }) {
  const units = useUnits();
  return (
    <section className="sheet mb-6" aria-label="The mix">
      <div className="grid items-start gap-x-4 sm:grid-cols-[minmax(0,1fr)_110px_auto]">
        <Field
          label="The mix that"
          {...fields.bind("aim")}
          options={[
            { value: "use", label: "uses the most stock" },
            { value: "earn", label: "earns most" },
          ]}
        />
        <Field label="Extra" unit="%" {...fields.bind("spare")} inputMode="decimal" />
        {solver.state.is === "looking" ? (
          <button type="button" className={press({ size: "gloved", className: "mt-[20px]" })} onClick={solver.stop}>
            Stop searching
          </button>
        ) : (
          <button type="submit" className="action-button mt-[20px]" data-next-step disabled={lines.length === 0}>
            Find best mix
          </button>
        )}
      </div>
      <div aria-live="polite" className="mt-1">
        {fault ? <p className="font-semibold text-hot">▲ {fault}</p> : null}
        {solver.state.is === "failed" ? <p className="font-semibold text-hot">▲ {solver.state.message}</p> : null}
        {mixture && solved ? (
          <FoundMix mixture={mixture} aim={solved.aim} lines={solved.lines} formulas={formulas} />
        ) : solver.state.is === "idle" && !fault ? (
          <p className="text-[15px] text-soft">
            With {units.percent(spareNow)} extra for every jar. Set a minimum to fill an order, and a maximum that you can sell.
          </p>
        ) : null}
      </div>
    </section>
  );
}

/** A formula and a vessel of a line that is no product yet. */
function FormulaInVessel({ line, index, fill: { formulas, known, containers, change, need } }: { line: FillLine; index: number; fill: FillState }) {
  const units = useUnits();
  const [adding, setAdding] = useState<string | null>(null);
  const { stocks, recentlyUsed } = known;
  return (
    <div className="min-w-0 max-md:col-span-2">
      <Chooser
        label={`Formula${index ? ` ${index + 1}` : ""}`}
        value={line.formula}
        options={formulas.map((formula) => ({ value: formula.id, name: formula.name }))}
        onLook={known.look}
        onValue={(formula) => {
          change(line.key, { formula });
          need(formula);
        }}
      />
      <Chooser
        label="in"
        value={line.container}
        options={suggestedFirst(containers, recentlyUsed, (id) => stocks[id]?.onHand).map((plannedContainer) => ({
          value: plannedContainer.id,
          name: plannedContainer.name,
          note: stocks[plannedContainer.id] ? `${stocks[plannedContainer.id]?.onHand} on hand` : units.g(plannedContainer.workingFillMg),
        }))}
        onLook={known.look}
        onValue={(id) => change(line.key, { container: id })}
        add={{ label: "a new vessel", run: setAdding }}
      />
      <AddVessel name={adding} known={known} onMade={(id) => change(line.key, { container: id })} onDone={() => setAdding(null)} />
    </div>
  );
}

/** One line: what it is, what one earns, how many at least and at most, how many alone, and how many in the mix. */
function Line({ line, index, scale, fill }: { line: FillLine; index: number; scale: number; fill: FillState }) {
  const { fields, limiting, mixture, solved, nameOf } = fill;
  const alone = fill.aloneOf(line);
  const at = solved?.lines.findIndex((fillLine) => fillLine.key === line.key) ?? -1;
  const fresh = at >= 0 && solved?.lines[at]?.formula === line.formula && solved?.lines[at]?.container === line.container;
  const container = fill.containerOf(line);
  return (
    <li className="grid grid-cols-2 items-center gap-x-3 border-b border-line py-2 md:grid-cols-[76px_minmax(0,1fr)_92px_76px_76px_104px_96px_44px]">
      <div className="flex justify-center max-md:hidden">
        {container ? <JarSection {...container} wicks={null} headspaceUm={null} fillMg={container.workingFillMg} scale={scale} /> : null}
      </div>
      {line.product ? (
        <div className="min-w-0 max-md:col-span-2">
          <div className="text-[18px] font-bold break-words">{line.product.name}</div>
          <div className="text-[15px] text-soft">
            {line.product.formulaName} in {container?.name ?? "something no longer here"}
          </div>
        </div>
      ) : (
        <FormulaInVessel line={line} index={index} fill={fill} />
      )}
      <Field label="Profit on one" {...fields.bind(`${line.key}:worth`)} inputMode="decimal" hint="Price less cost." />
      <Field label="Minimum" {...fields.bind(`${line.key}:least`)} inputMode="numeric" />
      <Field label="Maximum" {...fields.bind(`${line.key}:most`)} inputMode="numeric" />
      <div>
        <div className="text-[15px] text-soft">alone</div>
        <div className="figure text-[34px] leading-none" data-alone>
          {alone ? alone.n : "–"}
        </div>
        <div className="text-[13px] leading-tight text-soft">{alone ? `limited by ${limiting[alone.limitedBy]?.name}` : "unlimited"}</div>
      </div>
      <div aria-live="polite">
        <div className="text-[15px] font-semibold">in the mix</div>
        <div className="figure text-[44px] leading-none text-inside">{mixture && fresh ? mixture.counts[at] : "–"}</div>
      </div>
      <button type="button" className="press mt-[26px] !px-0" aria-label={`Leave out ${nameOf(line)}`} onClick={() => fill.leaveOut(line.key)}>
        ✕
      </button>
    </li>
  );
}

/** The products that the stock could become, and the button that adds another. */
export function Lines({ fill, products }: { fill: FillState; products: Product[] }) {
  const { lines, containerOf, known } = fill;
  const scale = commonScale(
    lines.flatMap((line) => containerOf(line) ?? []),
    60,
    72,
  );
  return (
    <section aria-label="Products">
      <h2 className="border-b-[3px] border-ink pb-1">What to make</h2>
      <ul>
        {lines.map((line, index) => (
          <Line key={line.key} line={line} index={index} scale={scale} fill={fill} />
        ))}
      </ul>
      <div className="mt-3 grid items-end gap-3 sm:grid-cols-[minmax(0,360px)_auto]">
        <Chooser
          label="Another product"
          value=""
          options={(known.whole?.products ?? products)
            .filter((product) => !product.archived && !lines.some((line) => line.product?.id === product.id))
            .map((product) => ({ value: product.id, name: product.name, note: product.formulaName }))}
          onLook={known.look}
          onValue={(id) => {
            const product = (known.whole?.products ?? products).find((product) => product.id === id);
            if (!product) return;
            fill.addProduct(product);
          }}
        />
        <button type="button" className="press mb-6" onClick={fill.addFormula}>
          + a formula in a vessel
        </button>
      </div>
    </section>
  );
}

/** The materials that limit, how much is there of each, and what the mix leaves. */
export function WhatIsThere({ fill: { materials, solved, mixture, haveOf, fields } }: { fill: FillState }) {
  const units = useUnits();
  const write = (item: { counted: boolean }, amount: number) => (item.counted ? String(amount) : units.bulk(amount));
  return (
    <section className="mt-6" aria-label="Stock to use">
      <h2 className="border-b-[3px] border-ink pb-1">Stock to use</h2>
      <ul>
        {materials.map((material) => {
          const row = solved?.materials.findIndex((other) => other.id === material.id) ?? -1;
          return (
            <li
              key={material.id}
              className="grid grid-cols-[minmax(0,1fr)_120px] items-start gap-x-4 border-b border-line py-1 sm:grid-cols-[minmax(0,1fr)_130px_110px_110px]"
            >
              <div className="pt-[26px]">
                <span className="font-semibold">{material.name}</span> <span className="text-soft">{material.is}</span>
                {mixture && row >= 0 ? <UsedBar have={haveOf(material.id)?.mg ?? 0} left={mixture.left[row] ?? 0} /> : null}
              </div>
              <Field label="There" unit={material.counted ? "pieces" : units.mass} {...fields.bind(`have:${material.id}`)} placeholder="plenty" />
              {material.counted ? (
                <span />
              ) : (
                <Field
                  label="Use it up"
                  {...fields.bind(`use:${material.id}`)}
                  options={[
                    { value: "yes", label: "yes" },
                    { value: "no", label: "no" },
                  ]}
                />
              )}
              <div className="text-right">
                <div className="text-[15px] text-soft">left over</div>
                <div className="figure text-[24px]">{mixture && row >= 0 ? write(material, mixture.left[row] ?? 0) : "–"}</div>
              </div>
              {material.density != null ? (
                <div className="col-span-full">
                  <VolumeNote amount={(haveOf(material.id) as never) ?? undefined} density={material.density} />
                </div>
              ) : null}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
