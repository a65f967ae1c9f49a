import { Done } from "../parts/done";
import type { StepView } from "../parts/step";

export const view: StepView = { title: () => "Prepare the molds", View: (props) => <Done {...props} button="Mark as prepared" /> };
