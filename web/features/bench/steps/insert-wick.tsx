import { Done } from "../parts/done";
import type { StepView } from "../parts/step";

export const view: StepView = { title: () => "Insert the wick", View: (props) => <Done {...props} button="Mark as wicked" /> };
