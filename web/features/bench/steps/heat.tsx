import { MeltMethod } from "../parts/melt-method";
import { Reading } from "../parts/reading";
import type { StepView } from "../parts/step";

export const view: StepView = {
  title: () => "Heat the wax",
  View: (props) => (
    <>
      <Reading {...props} button="Record temperature" />
      <MeltMethod batch={props.batch} pot={props.prompt.pot} />
    </>
  ),
};
