"use client";

import type { Design } from "@/server/burn/trial-design";
import { Link } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { Empty, PageLayout } from "@/ui/side-notes";
import { DesignMargin, HowItIsBurned, OnTheRack, WhatIsTried, WhatVaries, WorthTrying } from "./design-panels";
import { useBeginning, useDesign } from "./use-design";

/** One thing is varied, the rest held: what is burned against what, how, and by which protocol. */
export function DesignTrial({ design }: { design: Design }) {
  const state = useDesign(design);
  const { begin, busy, message } = useBeginning(state);
  const { asks, container, fields, from, chosen, replicates, racked } = state;
  if (!design.formula || !container)
    return (
      <PageLayout title="Design a trial">
        <Empty
          title="Nothing to burn yet"
          action={
            <Link className="action-button" href={design.formula ? "/shelf?kind=vessel" : "/formulas/new"} data-next-step>
              {design.formula ? "Add a vessel" : "Make a formula"}
            </Link>
          }
        >
          <p>A trial needs a formula, a vessel and wicks.</p>
        </Empty>
      </PageLayout>
    );
  const poured = chosen.length * replicates;
  const taken = Object.values(racked).reduce((a, b) => a + b, 0);
  return (
    <PageLayout
      title="Design a trial"
      lead={asks ? `After trial ${design.before?.number}: ${asks.why}` : "Change one thing, keep the rest the same, and burn two of each."}
      side={<DesignMargin state={state} />}
    >
      <form
        ref={fields.form}
        onSubmit={(event) => {
          event.preventDefault();
          void begin();
        }}
      >
        <WhatIsTried state={state} />
        <WhatVaries state={state} />
        {from === "make" ? <WorthTrying state={state} /> : <OnTheRack state={state} />}
        <HowItIsBurned state={state} />
        <FormMessage>{message}</FormMessage>
        <button type="submit" className="action-button mt-4 w-full sm:w-auto" data-next-step disabled={busy}>
          {from === "make" ? `Begin, and pour ${poured} ${poured === 1 ? "test candle" : "test candles"}` : `Begin with ${taken} from the rack`}
        </button>
      </form>
    </PageLayout>
  );
}
