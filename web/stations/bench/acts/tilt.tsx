import type { ActView } from "../parts/act";
import { Done } from "../parts/done";

export const view: ActView = {
  title: (step) => (step.name === "set upright" ? "Set the vessels upright" : "Tilt the vessels"),
  View: (props) => <Done {...props} button="Mark it done" />,
};
