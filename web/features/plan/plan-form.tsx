"use client";

import { useMemo } from "react";
import { Chooser } from "@/forms/chooser";
import { suggestedFirst } from "@/forms/matches";
import { Link } from "@/ui/address";
import { commonScale } from "@/ui/jar-section";
import { Empty, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { ChooseMade } from "./choose-made";
import { ContainerCounts } from "./containers";
import { refusedVessels } from "./model";
import { PlanFromWeight, PlanOptions } from "./plan-options";
import type { PlannerState } from "./use-planner";

/** What has to be there before anything can be planned. */
function Missing({ title, href, label, children }: { title: string; href: string; label: string; children: string }) {
  return (
    <PageLayout title="Plan a batch">
      <Empty
        title={title}
        action={
          <Link className="action-button" data-next-step href={href}>
            {label}
          </Link>
        }
      >
        <p>{children}</p>
      </Empty>
    </PageLayout>
  );
}

/** Returns what has to be made first where there is no formula or no vessel; null where there are both. */
export function missingToPlan(hasFormula: boolean, hasContainer: boolean) {
  if (!hasFormula)
    return (
      <Missing title="No formula to plan from" href="/formulas/new" label="Make a formula">
        A batch is calculated from a formula: the wax and fragrance for your vessels.
      </Missing>
    );
  if (!hasContainer)
    return (
      <Missing title="No vessel to fill" href="/shelf" label="Go to the shelf">
        Add your jars, cups and molds to the shelf with their fill weights.
      </Missing>
    );
  return null;
}

/** The formula and the process of a plan. */
export function PlanFormula({ plan, formulas }: { plan: PlannerState; formulas: { id: string; name: string }[] }) {
  const { known, chosen } = plan;
  return (
    <div className="sheet xl:col-span-2">
      <ChooseMade
        formulas={known.whole?.formulas ?? formulas}
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
  );
}

/** What is made, by which formula and process, how many of which, and with what options. */
export function PlanForm({
  plan,
  title,
  onAdd,
  onEnter,
  withStart = false,
}: {
  plan: PlannerState;
  title: string;
  onAdd: (name: string) => void;
  onEnter: () => void;
  withStart?: boolean;
}) {
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
        known.recentlyUsed,
        (id) => known.stocks[id]?.onHand,
      ).map((plannedContainer) => ({ value: plannedContainer.id, name: plannedContainer.name, note: units.g(plannedContainer.workingFillMg) })),
    [containers, lines, known.recentlyUsed, known.stocks, units],
  );
  const refused = useMemo(() => refusedVessels(known.shelf), [known.shelf]);
  return (
    <section className="sheet">
      <h2>{title}</h2>
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
        embeds={known.shelf.embeds}
        fields={fields}
        scale={scale}
        onLook={known.look}
        onEnter={onEnter}
        pots={plan.divided ? plan.inPots.map((inPot) => inPot.name) : []}
      />
      {plan.divided ? <p className="mt-2 text-[15px] text-soft">To fill the same vessel from two pots, make a product of each formula.</p> : null}
      {refused.length > 0 ? (
        <details className="mt-2 text-[15px]">
          <summary className="min-h-[32px] cursor-pointer text-soft">
            {refused.length === 1 ? "1 vessel is not offered" : `${refused.length} vessels are not offered`}
          </summary>
          <ul className="list-disc pl-5">
            {refused.map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        </details>
      ) : null}
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
      <PlanOptions plan={plan} withStart={withStart} />
      <PlanFromWeight plan={plan} />
    </section>
  );
}
