import { MadeReady, Pouring } from "../parts/lazy-pouring";
import type { StepView } from "../parts/step";
import { SwapJar } from "../parts/swap-jar";

export const view: StepView = {
  title: ({ molds }) => (molds ? "Pour slowly, tap, stop at the line" : "Pour slowly, tap, stop at the shoulder"),
  View: (props) => (
    <>
      <MadeReady batch={props.batch} />
      <SwapJar batch={props.batch} />
      <Pouring {...props} button="Mark as poured" />
    </>
  ),
};
