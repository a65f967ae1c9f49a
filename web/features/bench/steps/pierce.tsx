import { Done } from "../parts/done";
import type { StepView } from "../parts/step";

export const view: StepView = { title: () => "Pierce relief holes round the wick", View: (props) => <Done {...props} button="Mark it pierced" /> };
