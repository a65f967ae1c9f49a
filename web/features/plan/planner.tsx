"use client";

import { useState } from "react";
import { useDraft } from "@/catalogue/draft";
import { Link } from "@/ui/address";
import { PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { AddVessel } from "./add-vessel";
import { InSight } from "./in-sight";
import { missingToPlan, PlanForm, PlanFormula } from "./plan-form";
import { BeforeMelting, PlanMargin } from "./plan-margin";
import { PlanWeights, START_BUTTON } from "./plan-weights";
import { SecondPour } from "./second-pour";
import { type PlannerProps, usePlanner } from "./use-planner";

/** Works out what to weigh for what is to be made, and starts the batch. */
export function Planner(props: PlannerProps) {
  const units = useUnits();
  const plan = usePlanner(props);
  const draft = useDraft("plan", plan.typedForDraft, plan.takeDraft);
  const [adding, setAdding] = useState<string | null>(null);
  const { chosen, known, fields, fault, planned } = plan;
  const missing = missingToPlan(props.names.length > 0, plan.containers.length > 0);
  if (missing) return missing;
  return (
    <PageLayout
      title="Plan a batch"
      actions={
        <>
          <Link className="press" href="/plan/wanted">
            Demand
          </Link>
          <Link className="press" href="/plan/day">
            Day schedule
          </Link>
          <Link className="press" href="/plan/fill">
            What can I make?
          </Link>
        </>
      }
      lead={chosen ? `${chosen.name}, version ${chosen.number}: ${units.percent(chosen.spec.loadPpm)} of the ${chosen.spec.basis}` : "Choose a formula first."}
      side={
        <>
          {draft.offer}
          <PlanMargin
            noScale={plan.scales.length === 0}
            fault={fault && fault.field !== "pitcher_capacity_g" ? units.inUnits(fault.message) : null}
            gel={plan.gel}
            picked={plan.picked}
            fillAt={plan.fillAt}
            shortage={plan.shortage}
            warnings={plan.warnings}
          />
          <SecondPour plan={plan} />
          <BeforeMelting />
        </>
      }
    >
      {/* Enter in a count starts nothing: starting is its own button. */}
      <form
        ref={fields.form}
        className="grid grid-cols-1 gap-x-6 gap-y-3 xl:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]"
        onSubmit={(event) => event.preventDefault()}
      >
        <PlanFormula plan={plan} formulas={props.names} />
        <PlanForm plan={plan} title="Jars to fill" withStart onAdd={setAdding} onEnter={() => document.getElementById(START_BUTTON)?.focus()} />
        <PlanWeights plan={plan} products={props.products} rates={props.rates} onBegun={draft.drop} />
      </form>
      <AddVessel name={adding} known={known} onMade={(id) => plan.setAdded((old) => [...old, id])} onDone={() => setAdding(null)} />
      {planned ? <InSight planned={planned} /> : null}
    </PageLayout>
  );
}
