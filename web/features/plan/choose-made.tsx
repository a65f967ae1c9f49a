"use client";

import { Chooser } from "@/forms/chooser";
import type { PlanFormula, ProcessChoice } from "./model";

/** What is made and how: the formula, the process, and the formulas of further pots where the process works several. */
export function ChooseMade(props: {
  formulas: readonly { id: string; name: string }[];
  chosen: PlanFormula | null;
  others: (PlanFormula | null)[];
  choices: ProcessChoice[];
  choice: string;
  onLook: () => void;
  onFormula: (id: string) => void;
  onOther: (at: number, id: string) => void;
  onChoice: (value: string) => void;
}) {
  const known = [props.chosen, ...props.others].filter((formula): formula is PlanFormula => formula !== null);
  const formulas = [...known.filter((formula) => !props.formulas.some((other) => other.id === formula.id)), ...props.formulas].map((item) => ({
    value: item.id,
    name: item.name,
  }));
  return (
    <div className="grid grid-cols-2 gap-x-4">
      <Chooser label="Formula" value={props.chosen?.id ?? ""} options={formulas} onLook={props.onLook} onValue={props.onFormula} />
      <Chooser
        label="Process"
        value={props.choice}
        options={props.choices.map((choice) => ({ value: choice.value, name: choice.name }))}
        onValue={props.onChoice}
      />
      {props.others.map((formula, index) => (
        <div key={index} className="col-span-2">
          <Chooser
            label={`Formula of pot ${index + 2}`}
            value={formula?.id ?? ""}
            options={formulas}
            onLook={props.onLook}
            onValue={(id) => props.onOther(index, id)}
          />
        </div>
      ))}
    </div>
  );
}
