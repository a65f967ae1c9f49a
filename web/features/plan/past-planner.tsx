"use client";

import { useState } from "react";
import { useDraft } from "@/catalogue/draft";
import { Link } from "@/ui/address";
import { Aside, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { AddVessel } from "./add-vessel";
import { FIRST_NOTED, PastNotes } from "./past-notes";
import { missingToPlan, PlanForm, PlanFormula } from "./plan-form";
import { PlanMargin } from "./plan-margin";
import { usePastBatch } from "./use-past-batch";
import { type PlannerProps, usePlanner } from "./use-planner";

/** A batch that is already made, entered on one screen: what was made, and what was noted of it. */
export function PastPlanner(props: PlannerProps) {
  const units = useUnits();
  const plan = usePlanner(props, "/plan/past");
  const planDraft = useDraft("past batch's plan", plan.typedForDraft, plan.takeDraft);
  const past = usePastBatch(plan, planDraft.drop);
  const [adding, setAdding] = useState<string | null>(null);
  const missing = missingToPlan(props.names.length > 0, plan.containers.length > 0);
  if (missing) return missing;
  const { fault } = plan;
  return (
    <PageLayout
      title="Enter a past batch"
      lead="For a batch in your notebook. Enter what you noted; leave the rest empty."
      actions={
        <Link className="press" href="/plan">
          Plan a batch
        </Link>
      }
      side={
        <>
          {planDraft.offer ?? past.draft.offer}
          <PlanMargin
            noScale={plan.scales.length === 0}
            fault={fault && fault.field !== "pitcher_capacity_g" ? units.inUnits(fault.message) : null}
            gel={plan.gel}
            picked={plan.picked}
            fillAt={plan.fillAt}
            shortage={[]}
            warnings={[]}
          />
          <Aside title="What it counts for">
            It is compared with other batches in findings, and its wax, oil and vessels are deducted from stock as of its day. A stock count made since then is
            not changed by it.
          </Aside>
          <Aside title="Readings without a time">They are kept and compared. How your pots cool is learned only from readings with a time.</Aside>
        </>
      }
    >
      <div className="grid grid-cols-1 gap-x-6 gap-y-3 xl:grid-cols-[minmax(0,0.9fr)_minmax(0,1.2fr)]">
        {/* Enter in a count goes on to what was noted. */}
        <form ref={plan.fields.form} className="contents" onSubmit={(event) => event.preventDefault()}>
          <PlanFormula plan={plan} formulas={props.names} />
          <PlanForm
            plan={plan}
            title="Jars made"
            onAdd={setAdding}
            onEnter={() => (past.fields.form.current?.elements.namedItem(FIRST_NOTED) as HTMLElement | null)?.focus()}
          />
        </form>
        <PastNotes plan={plan} past={past} />
      </div>
      <AddVessel name={adding} known={plan.known} onMade={(id) => plan.setAdded((old) => [...old, id])} onDone={() => setAdding(null)} />
    </PageLayout>
  );
}
