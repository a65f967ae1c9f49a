import { Done } from "../parts/done";
import type { StepView } from "../parts/step";

export const view: StepView = {
  title: (prompt) => (prompt.name === "wait" ? "Wait" : `W${prompt.name.slice(1)}`),
  View: (props) => <Done {...props} button="Go on" />,
};
