/**
 * The steps that led to a figure: quantities and operations, not sentences, so that any screen can open a figure
 * to "140 g ÷ 1.10 = 127.27 g → 127 g" in the reader's own units.
 */
export type FigureUnit = "g" | "%" | "jars" | "×" | "g/ml" | "ml" | "mm" | "drops" | "pieces" | "bottles" | "money";

export interface Figure {
  /** The figure's name, unique within one working: later steps refer to earlier ones by it. */
  name: string;
  value: number;
  unit: FigureUnit;
}

export type Operation = "given" | "multiply" | "divide" | "add" | "subtract" | "round" | "round up" | "formula";

export interface Step {
  gives: Figure;
  by: Operation;
  from: Figure[];
  /** For "formula": the expression in plain signs, as a reader would write it. */
  expression?: string;
}

/** Returns the steps a named figure rests on, in order, ending with the one that gives it. */
export function workingOf(steps: readonly Step[], name: string): Step[] {
  const wanted = new Set([name]);
  const kept: Step[] = [];
  for (const step of [...steps].reverse()) {
    if (!wanted.has(step.gives.name)) continue;
    kept.unshift(step);
    for (const figure of step.from) wanted.add(figure.name);
  }
  return kept;
}
