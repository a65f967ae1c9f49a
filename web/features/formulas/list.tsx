"use client";

import { bandsOf, type FormulaSpec, loadOnBasis, WAX_FAMILIES } from "@hearth/core";
import { FindBar, NothingFound, Pages, PUT_AWAY } from "@/catalogue/find-bar";
import { Tidy } from "@/catalogue/tidy";
import type { FormulaListed } from "@/server/formulas/formulas";
import { Link } from "@/ui/address";
import { HeatLine } from "@/ui/heat-line";
import { type PotPart, PotStrip } from "@/ui/pot-strip";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";

/** Returns the parts of one group as the strip draws them: so much of a million together. */
function sharesOf(parts: FormulaSpec["waxes"], kind: "wax" | "fragrance", together: number, names: Record<string, string>): PotPart[] {
  const sum = parts.reduce((all, part) => all + part.share, 0);
  return parts.map((part) => ({ name: names[part.id] ?? kind, kind, mg: (together * part.share) / sum }));
}

const named = (parts: PotPart[]) => parts.map((part) => part.name).join(" + ");

/** The list of formulas, each with a picture of its parts. */
export function FormulaList({
  formulas,
  names,
  found,
  page,
  pages,
  narrowed,
}: {
  formulas: FormulaListed[];
  names: Record<string, string>;
  found: number;
  page: number;
  pages: number;
  /** Whether something is looked for. */
  narrowed: boolean;
}) {
  const units = useUnits();
  const add = (
    <Link className="action-button" href="/formulas/new" data-next-step>
      Make a formula
    </Link>
  );
  return (
    <PageLayout
      title="Formulas"
      lead="What goes into a candle, and its process."
      actions={
        <>
          <Link className="press" href="/formulas/processes">
            Processes
          </Link>
          {formulas.length > 0 || narrowed ? add : null}
        </>
      }
      side={
        <Aside title="One change at a time">
          A formula that has been used keeps its old versions. Change one thing, pour again, and the record shows what the change did.
        </Aside>
      }
    >
      {formulas.length > 0 || narrowed ? (
        <FindBar
          what="formulas"
          found={found}
          filters={[
            {
              key: "family",
              label: "Family",
              options: [{ value: "", label: "all" }, ...WAX_FAMILIES.map((waxFamily) => ({ value: waxFamily, label: waxFamily }))],
            },
            {
              key: "order",
              label: "Order",
              options: [
                { value: "", label: "by name" },
                { value: "changed", label: "last changed first" },
              ],
            },
            PUT_AWAY,
          ]}
        />
      ) : null}
      {formulas.length === 0 && narrowed ? (
        <NothingFound what="formula" />
      ) : formulas.length === 0 ? (
        <Empty title="No formula yet" action={add}>
          <p>
            A formula names the wax, the fragrance and its load, and the temperatures at which the wax is heated, scented and poured. Every batch starts from a
            formula, so that you can repeat a good candle.
          </p>
        </Empty>
      ) : (
        <ul>
          {formulas.map((formula) => {
            const ofTotal = loadOnBasis(formula.spec.loadPpm, formula.spec.basis, "total");
            const wax = sharesOf(formula.spec.waxes, "wax", 1_000_000 - ofTotal, names);
            const oil = sharesOf(formula.spec.fragrances, "fragrance", ofTotal, names);
            return (
              <li
                key={formula.id}
                className="grid items-center gap-x-6 gap-y-2 border-b border-line py-3 sm:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)_132px_132px_48px]"
              >
                <div>
                  <Link href={`/formulas/${formula.id}`} className="text-[19px] font-bold">
                    {formula.name}
                  </Link>
                  <div className="text-soft">
                    {named(wax)}, {named(oil) || "unscented"} · version {formula.number}
                  </div>
                </div>
                <div>
                  <PotStrip bare height={26} parts={[...wax, ...oil]} />
                  <div className="mt-1 text-[14px]">
                    <span className="figure text-[18px]">{units.percent(formula.spec.loadPpm)}</span> of the {formula.spec.basis} · {formula.spec.process.name}
                  </div>
                </div>
                <HeatLine
                  thumb
                  height={44}
                  bands={bandsOf(formula.spec.process)}
                  ceiling={formula.spec.process.ceiling}
                  marks={[]}
                  label={`Ranges of ${formula.name}`}
                />
                <Link className="press" href={`/plan?formula=${formula.id}`}>
                  Plan a batch
                </Link>
                <Tidy kind="formula" id={formula.id} name={formula.name} away={formula.archived} path={(id) => `/formulas/${id}`} />
              </li>
            );
          })}
        </ul>
      )}
      <Pages page={page} pages={pages} />
    </PageLayout>
  );
}
