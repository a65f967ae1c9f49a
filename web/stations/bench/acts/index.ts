import type { ActView } from "../parts/act";

declare const require: { context(folder: string, deep: boolean, names: RegExp): ((name: string) => { view: ActView }) & { keys(): string[] } };

/** The views of the acts, each found by the name of its kind: a new kind needs its file here, and no line. */
const views = require.context("./", false, /^\.\/[a-z-]+\.tsx$/);

export function actView(kind: string): ActView {
  return views(`./${kind}.tsx`).view;
}
