import type { StepView } from "../parts/step";

declare const require: { context(folder: string, deep: boolean, names: RegExp): ((name: string) => { view: StepView }) & { keys(): string[] } };

/** The views of the steps, each found by the name of its kind: a new kind needs its file here, and no line. */
const views = require.context("./", false, /^\.\/[a-z-]+\.tsx$/);

export function stepView(kind: string): StepView {
  return views(`./${kind}.tsx`).view;
}
