import { Done } from "../parts/done";
import type { StepView } from "../parts/step";

export const view: StepView = { title: () => "Take the candles out of the molds", View: (props) => <Done {...props} button="Mark as unmolded" /> };
