import type { StepView } from "../parts/step";
import { Weighing } from "../parts/weighing";

export const view: StepView = { title: (prompt) => `${prompt.component?.count ? "Count in" : "Weigh"} ${prompt.component?.name ?? ""}`, View: Weighing };
