import { Pouring } from "../parts/lazy-pouring";
import { Reading } from "../parts/reading";
import type { StepView } from "../parts/step";

export const view: StepView = {
  title: (prompt) => (prompt.entry === "read" ? "Reheat what was kept back" : "Second pour, up to the first line"),
  View: (props) => (props.prompt.entry === "read" ? <Reading {...props} button="Record temperature" /> : <Pouring {...props} button="Mark second pour" />),
};
