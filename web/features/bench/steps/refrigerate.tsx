import { Done } from "../parts/done";
import type { StepView } from "../parts/step";

export const view: StepView = { title: () => "Into the refrigerator", View: (props) => <Done {...props} button="Mark as done" /> };
