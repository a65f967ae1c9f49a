import { Reading } from "../parts/reading";
import type { StepView } from "../parts/step";

export const view: StepView = {
  title: (prompt) => (prompt.name.startsWith("add") ? `Add the ${prompt.name.slice(4)}` : "Read before stirring"),
  View: (props) => <Reading {...props} button="Record temperature" />,
};
