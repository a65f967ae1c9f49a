import type { ActView } from "../parts/act";
import { Done } from "../parts/done";

export const view: ActView = {
  title: (step) => (step.name === "wait" ? "Wait" : `W${step.name.slice(1)}`),
  View: (props) => <Done {...props} button="Go on" />,
};
