import type { ActView } from "../parts/act";
import { Reading } from "../parts/reading";

export const view: ActView = {
  title: (step) => (step.name.startsWith("add") ? `Add the ${step.name.slice(4)}` : "Read before stirring"),
  View: (props) => <Reading {...props} button="Record the add reading" />,
};
