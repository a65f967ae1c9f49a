"use client";

import { useMemo, useState } from "react";
import { Chooser } from "@/forms/chooser";
import { suggestedFirst } from "@/forms/matches";
import { Link } from "@/ui/address";
import { commonScale } from "@/ui/jar-section";
import { Empty, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { AddVessel } from "./add-vessel";
import { ChooseMade } from "./choose-made";
import { ContainerCounts } from "./containers";
import { InSight } from "./in-sight";
import { PlanMargin } from "./plan-margin";
import { PlanFromWeight, PlanOptions } from "./plan-options";
import { PlanWeights, START_BUTTON } from "./plan-weights";
import { type PlannerProps, type PlannerState, usePlanner } from "./use-planner";

/** What has to be there before anything can be planned. */
function Missing({ title, href, label, children }: { title: string; href: string; label: string; children: string }) {
  return (
    <PageLayout title="Plan a batch">
      <Empty
        title={title}
        action={
          <Link className="act" data-next-step href={href}>
            {label}
          </Link>
        }
      >
        <p>{children}</p>
      </Empty>
    </PageLayout>
  );
}

/** What is made, by which formula and process, how many of which, and with what options. */
function PlanForm({ plan, onAdd }: { plan: PlannerState; onAdd: (name: string) => void }) {
  const units = useUnits();
  const { known, lines, containers, picked, fields } = plan;
  const scale = useMemo(
    () =>
      commonScale(
        lines.map((line) => line.container),
        84,
        120,
      ),
    [lines],
  );
  const more = useMemo(
    () =>
      suggestedFirst(
        containers.filter((container) => !lines.some((line) => line.container.id === container.id)),
        known.lately,
        (id) => known.stocks[id]?.onHand,
      ).map((plannedContainer) => ({ value: plannedContainer.id, name: plannedContainer.name, note: units.g(plannedContainer.workingFillMg) })),
    [containers, lines, known.lately, known.stocks, units],
  );
  return (
    <section className="sheet">
      <h2>Jars to fill</h2>
      {plan.reading ? (
        <p role="status" className="text-soft">
          Reading the formula
        </p>
      ) : null}
      <ContainerCounts
        lines={lines}
        fillOf={plan.fillAt}
        picked={new Set(picked.map((item) => item.key))}
        wicks={known.shelf.wicks}
        fields={fields}
        scale={scale}
        onLook={known.look}
        onEnter={() => document.getElementById(START_BUTTON)?.focus()}
      />
      <div className="mt-3">
        <Chooser
          label="Another vessel or mold"
          value=""
          options={more}
          onLook={known.look}
          onValue={plan.addLine}
          add={{ label: "a new vessel", run: onAdd }}
        />
      </div>
      <PlanOptions plan={plan} />
      <PlanFromWeight plan={plan} />
    </section>
  );
}

/** Works out what to weigh for what is to be made, and starts the batch. */
export function Planner(props: PlannerProps) {
  const units = useUnits();
  const plan = usePlanner(props);
  const [adding, setAdding] = useState<string | null>(null);
  const { chosen, known, fields, fault, planned } = plan;
  if (props.names.length === 0)
    return (
      <Missing title="No formula to plan from" href="/formulas/new" label="Make a formula">
        A batch is calculated from a formula: the wax and fragrance for your vessels.
      </Missing>
    );
  if (plan.containers.length === 0)
    return (
      <Missing title="No vessel to fill" href="/shelf" label="Go to the shelf">
        Add your jars, cups and molds to the shelf with their fill weights.
      </Missing>
    );
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
          {plan.draft.offer}
          <PlanMargin
            noScale={plan.scales.length === 0}
            fault={fault && fault.field !== "pitcher_capacity_g" ? units.inUnits(fault.message) : null}
            gel={plan.gel}
            picked={plan.picked}
            fillAt={plan.fillAt}
            shortage={plan.shortage}
            warnings={plan.warnings}
          />
        </>
      }
    >
      {/* Enter in a count starts nothing: starting is its own button. */}
      <form
        ref={fields.form}
        className="grid grid-cols-1 gap-x-6 gap-y-3 xl:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]"
        onSubmit={(event) => event.preventDefault()}
      >
        <div className="sheet xl:col-span-2">
          <ChooseMade
            formulas={known.whole?.formulas ?? props.names}
            chosen={chosen}
            others={plan.others}
            choices={plan.choices}
            choice={plan.choice}
            onLook={known.look}
            onFormula={(id) => plan.choose([id])}
            onOther={(at, id) => plan.choose([chosen?.id ?? "", ...plan.others.map((formula, index) => (index === at ? id : (formula?.id ?? "")))])}
            onChoice={plan.setChoice}
          />
        </div>
        <PlanForm plan={plan} onAdd={setAdding} />
        <PlanWeights plan={plan} products={props.products} rates={props.rates} />
      </form>
      <AddVessel name={adding} known={known} onMade={(id) => plan.setAdded((old) => [...old, id])} onDone={() => setAdding(null)} />
      {planned ? <InSight planned={planned} /> : null}
    </PageLayout>
  );
}
