import type { ActView } from "../parts/act";
import { Weighing } from "../parts/weighing";

export const view: ActView = { title: (step) => `${step.component?.count ? "Count in" : "Weigh"} ${step.component?.name ?? ""}`, View: Weighing };
