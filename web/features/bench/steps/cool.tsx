import { Reading } from "../parts/reading";
import type { StepView } from "../parts/step";

export const view: StepView = { title: () => "Bring it to the pour range", View: (props) => <Reading {...props} button="Record temperature" /> };
