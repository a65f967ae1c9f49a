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
  const known = [props.chosen, ...props.others].filter((one): one is PlanFormula => one !== null);
  const formulas = [...known.filter((one) => !props.formulas.some((other) => other.id === one.id)), ...props.formulas].map((one) => ({
    value: one.id,
    name: one.name,
  }));
  return (
    <div className="grid grid-cols-2 gap-x-4">
      <Chooser label="Formula" value={props.chosen?.id ?? ""} options={formulas} onLook={props.onLook} onValue={props.onFormula} />
      <Chooser label="Process" value={props.choice} options={props.choices.map((one) => ({ value: one.value, name: one.name }))} onValue={props.onChoice} />
      {props.others.map((one, at) => (
        <div key={at} className="col-span-2">
          <Chooser label={`Formula of pot ${at + 2}`} value={one?.id ?? ""} options={formulas} onLook={props.onLook} onValue={(id) => props.onOther(at, id)} />
        </div>
      ))}
    </div>
  );
}
