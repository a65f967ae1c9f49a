"use client";

import { leftInPot } from "@hearth/core";
import { useMemo } from "react";
import { orNothing } from "@/forms/fields";
import { massRule } from "@/forms/rules";
import { useUnits } from "@/ui/units";
import { EntryForm } from "../parts/entry-form";
import { HUGE, type StepProps, type StepView } from "../parts/step";

/** Takes the rest of another pot: what should be left of it, and what the scale shows where it is weighed. */
function Split({ prompt, batch }: StepProps) {
  const units = useUnits();
  const rule = useMemo(() => orNothing(massRule(units)), [units]);
  const pot = batch.plan.pots[prompt.pot];
  const from = pot?.restOf ?? 0;
  const left = leftInPot(batch.plan, batch.state, from);
  const figure = units.gParts(left);
  return (
    <>
      <div>
        <span className={HUGE}>{figure.figure}</span>
        <span className="figure text-[34px]"> {figure.unit}</span>
        <p className="text-soft">
          should be left of pot {from + 1}, by what was weighed and poured; {units.g(pot?.baseMg ?? 0)} of it were planned for {pot?.formulaName}
        </p>
      </div>
      <EntryForm
        batch={batch}
        label="It weighs"
        unit={units.mass}
        rule={rule}
        button="Go on with the rest"
        entry={(mg) => ({ kind: "split", payload: { step: prompt.step, mg } })}
      >
        {() => <p className="mt-1 text-[15px] text-soft">Leave it empty if you cannot weigh it. What goes in next is dosed for what is left.</p>}
      </EntryForm>
    </>
  );
}

export const view: StepView = { title: ({ pot }) => `Take the rest as pot ${pot + 1}`, View: Split };
