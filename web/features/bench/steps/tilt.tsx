import { Done } from "../parts/done";
import type { StepView } from "../parts/step";

export const view: StepView = {
  title: (prompt) => (prompt.name === "set upright" ? "Set the vessels upright" : "Tilt the vessels"),
  View: (props) => <Done {...props} button="Mark as done" />,
};
