import { Pouring } from "../parts/pouring-later";
import { Reading } from "../parts/reading";
import type { StepView } from "../parts/step";

export const view: StepView = {
  title: (prompt) => (prompt.entry === "read" ? "Reheat what was kept back" : "Pour again, up to the first line"),
  View: (props) => (props.prompt.entry === "read" ? <Reading {...props} button="Record the reading" /> : <Pouring {...props} button="Mark it poured again" />),
};
