import type { ActView } from "../parts/act";
import { Pouring } from "../parts/pouring-later";
import { Reading } from "../parts/reading";

export const view: ActView = {
  title: (step) => (step.entry === "read" ? "Reheat what was kept back" : "Pour again, up to the first line"),
  View: (props) => (props.step.entry === "read" ? <Reading {...props} button="Record the reading" /> : <Pouring {...props} button="Mark it poured again" />),
};
