"use client";

import type { Rates } from "@hearth/core";
import { memo, useMemo } from "react";
import type { Product } from "@/server/products/products";
import { Link } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { costsOf } from "./model";
import { ToWeigh } from "./to-weigh";
import { type PlannerState, useBegin } from "./use-planner";

/** The id of the button that starts the batch, for what goes to it. */
export const START_BUTTON = "start-batch";

/** What is drawn again only where what is to be weighed changes. */
const Weights = memo(ToWeigh);

/** What to weigh for the plan, and the buttons that begin it. */
export function PlanWeights({ plan, products, rates, onBegun }: { plan: PlannerState; products: Product[]; rates: Rates; onBegun: () => void }) {
  const { worked, known, startFrom, pots, inPots, chosen, reading, gel, scales, picked } = plan;
  const { begin, message, busy } = useBegin(plan, onBegun);
  const costs = useMemo(() => (worked?.ok ? costsOf(worked.plan, known.stocks, picked, products, rates) : []), [worked, known.stocks, picked, products, rates]);
  const stopped = busy || reading || !chosen || gel.some((gelFault) => gelFault.weight === "stop") || scales.length === 0;
  return (
    <section className="sheet self-start xl:sticky xl:top-3 xl:max-h-[calc(100vh-24px)] xl:overflow-auto" aria-live="polite">
      <div className="flex flex-wrap items-center justify-between gap-x-4">
        <h2>Weigh out</h2>
        <button
          id={START_BUTTON}
          type="button"
          className="action-button"
          data-next-step={picked.length > 0 ? true : undefined}
          disabled={stopped}
          onClick={() => begin("batch")}
        >
          {busy ? "Starting" : "Start the batch"}
        </button>
      </div>
      <FormMessage className="mt-2">{message}</FormMessage>
      {worked?.ok ? (
        <Weights
          planned={worked.planned}
          plan={worked.plan}
          stocks={known.stocks}
          fragrances={known.shelf.fragrances}
          shared={startFrom !== undefined}
          costs={costs}
        />
      ) : (
        <p className="mt-2 text-soft">
          {pots > inPots.length
            ? `This process uses ${pots} pots: choose a formula for each.`
            : chosen
              ? "Type how many of each to see the weights."
              : "Choose a formula, then how many of each."}
        </p>
      )}
      <button type="button" className="press mt-4 w-full" disabled={stopped} onClick={() => begin("rehearsal")}>
        Practice first with a simulated pot
      </button>
      <p className="mt-3 text-[15px]">
        Already made?{" "}
        <Link className="inline-block min-h-[24px] underline" href="/plan/past">
          Enter a past batch
        </Link>
      </p>
    </section>
  );
}
