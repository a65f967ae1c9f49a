"use client";

import { netOfBatch, QUANTITY_RULES, quantityRulesOf } from "@hearth/core";
import type { Batch } from "@/log/use-batch";
import { useUnits } from "@/ui/units";

const SAYS = { pass: "✓ meets the net weight", fail: "✕ below the net weight", too_few: "? too few were weighed" } as const;
const TONE = { pass: "text-inside", fail: "text-hot", too_few: "text-soft" } as const;

/** Whether jars that are sold by weight hold what they state, from what was weighed at pouring. */
export function Net({ batch }: { batch: Batch }) {
  const units = useUnits();
  const g = (grams: number) => units.about(Math.round(grams * 1_000));
  const rules = quantityRulesOf(units.locale);
  const nets = netOfBatch(batch.plan, batch.state, g, rules);
  if (nets.length === 0) return null;
  return (
    <section className="mt-5" aria-label="Net weight">
      <h2>Net weight</h2>
      {nets.map(({ product, name, statedMg, weighed, answer }) => (
        <div key={product} className="border-b border-line py-2">
          <p>
            {name}, stated {units.g(statedMg)}: <strong className={TONE[answer.verdict]}>{SAYS[answer.verdict]}</strong>
          </p>
          <p className="text-[15px]">
            {weighed} weighed, mean <span className="figure text-[20px]">{g(answer.mean_g)}</span>
            {answer.sd_g === null ? "" : `, spread ${g(answer.sd_g)}`}. {answer.why}
          </p>
          {answer.fill_to_pass_g !== null && answer.fill_to_pass_g > answer.mean_g ? (
            <p className="text-[15px]">
              With this variation, a lot with a mean fill of <strong>{g(answer.fill_to_pass_g)}</strong> passes in at least{" "}
              {units.n((answer.fill_passes_share ?? 0) * 100, 0)} of 100 cases: {g(answer.fill_to_pass_g - answer.mean_g)} more, or weigh each.
            </p>
          ) : null}
        </div>
      ))}
      <p className="mt-1 text-[14px] text-soft">By the rules for packed goods ({QUANTITY_RULES[rules].name}, from memory). Your country may have others.</p>
    </section>
  );
}
