import { Done } from "../parts/done";
import type { StepView } from "../parts/step";

export const view: StepView = { title: () => "Let it rest until the bubbles have risen", View: (props) => <Done {...props} button="Mark as rested" /> };
