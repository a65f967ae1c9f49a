import { Done } from "../parts/done";
import type { StepView } from "../parts/step";

export const view: StepView = { title: (prompt) => `F${prompt.name.slice(1)}`, View: (props) => <Done {...props} button="Mark as finished" /> };
